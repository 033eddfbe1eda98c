'use client';

import { DraftScreen } from '@/areas/documents/editor/DraftScreen';
import { useNamed } from '@/areas/shell/useNamed';

export default function Page() {
  const [id = ''] = useNamed('/sales/draft');
  return <DraftScreen key={id} id={id} />;
}
