'use client';

import { useSearchParams } from 'next/navigation';
import { NewReceipt } from '@/areas/payments/NewReceipt';

export default function Page() {
  const documentId = useSearchParams().get('document') ?? '';
  return <NewReceipt key={documentId} documentId={documentId} />;
}
