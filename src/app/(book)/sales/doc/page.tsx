'use client';

import { IssuedScreen } from '@/areas/documents/issued/IssuedScreen';
import { useNamed } from '@/areas/shell/useNamed';

export default function Page() {
  const [id = ''] = useNamed('/sales/doc');
  return <IssuedScreen key={id} id={id} />;
}
