import { ReceiptsHome } from '@/areas/receipts/ReceiptsHome';

export default function Page() {
  return <ReceiptsHome />;
}
