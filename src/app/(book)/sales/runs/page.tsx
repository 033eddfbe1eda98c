'use client';

import { RunList } from '@/areas/documents/runs/RunList';
import { RunPage } from '@/areas/documents/runs/RunPage';
import { useNamed } from '@/areas/shell/useNamed';

export default function Page() {
  const [id = ''] = useNamed('/sales/runs');
  return id === '' ? <RunList /> : <RunPage key={id} id={id} />;
}
