import { NewReceipt } from '@/areas/payments/NewReceipt';
import { ReceiptScreen } from '@/areas/payments/ReceiptScreen';

interface PageProps {
  readonly params: Promise<{ id: string }>;
  readonly searchParams: Promise<{ document?: string }>;
}

export default async function Page({ params, searchParams }: PageProps) {
  const { id } = await params;
  if (id !== 'new') return <ReceiptScreen key={id} id={id} />;
  const { document } = await searchParams;
  return <NewReceipt key={document ?? ''} documentId={document ?? ''} />;
}
