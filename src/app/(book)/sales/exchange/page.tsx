import { ExchangeScreen } from '@/areas/sales/exchange/ExchangeScreen';

export default function Page() {
  return <ExchangeScreen />;
}
