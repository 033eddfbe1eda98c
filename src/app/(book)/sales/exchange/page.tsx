import { ExchangeScreen } from '@/areas/delivery/SentScreen';

export default function Page() {
  return <ExchangeScreen />;
}
