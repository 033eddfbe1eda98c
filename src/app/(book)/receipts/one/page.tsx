'use client';

import { ReceiptScreen } from '@/areas/payments/ReceiptScreen';
import { useNamed } from '@/areas/shell/useNamed';

export default function Page() {
  const [id = ''] = useNamed('/receipts');
  return <ReceiptScreen key={id} id={id} />;
}
