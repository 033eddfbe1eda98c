import { TaxScreen } from '@/areas/tax/TaxScreen';

export default function Page() {
  return <TaxScreen />;
}
