'use client';

import { RecurringList } from '@/areas/documents/recurring/RecurringList';
import { RecurringPage } from '@/areas/documents/recurring/RecurringPage';
import { useNamed } from '@/areas/shell/useNamed';

export default function Page() {
  const [id = ''] = useNamed('/sales/recurring');
  return id === '' ? <RecurringList /> : <RecurringPage key={id} id={id} />;
}
