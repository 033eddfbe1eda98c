import { EInvoiceScreen } from '@/areas/delivery/einvoice/EInvoiceScreen';

export default function Page() {
  return <EInvoiceScreen />;
}
