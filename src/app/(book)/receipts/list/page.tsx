import { ReceiptList } from '@/areas/payments/ReceiptList';

export default function Page() {
  return <ReceiptList />;
}
