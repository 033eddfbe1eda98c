'use client';

import { useSearchParams } from 'next/navigation';
import { NewReceipt } from '@/areas/payments/NewReceipt';

export default function Page() {
  const asked = useSearchParams();
  const [documentId, customerId] = [asked.get('document') ?? '', asked.get('customer') ?? ''];
  return <NewReceipt key={`${documentId} ${customerId}`} documentId={documentId} customerId={customerId} />;
}
