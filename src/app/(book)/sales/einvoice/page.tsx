import { EInvoiceScreen } from '@/areas/sales/einvoice/EInvoiceScreen';

export default function Page() {
  return <EInvoiceScreen />;
}
