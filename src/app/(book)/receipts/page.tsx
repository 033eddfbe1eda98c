import { ReceiptsHome } from '@/areas/payments/ReceiptsHome';

export default function Page() {
  return <ReceiptsHome />;
}
