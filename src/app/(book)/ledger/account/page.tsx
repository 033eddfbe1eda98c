'use client';

import { AccountScreen } from '@/areas/ledger/AccountScreen';
import { useNamed } from '@/areas/shell/useNamed';

export default function Page() {
  const [code = ''] = useNamed('/ledger/account');
  return <AccountScreen key={code} code={code} />;
}
