import { WithholdingScreen } from '@/areas/payments/WithholdingScreen';

export default function Page() {
  return <WithholdingScreen />;
}
