import { SalesHome } from '@/areas/sales/SalesHome';

export default function Page() {
  return <SalesHome />;
}
