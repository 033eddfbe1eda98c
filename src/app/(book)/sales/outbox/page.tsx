import { OutboxScreen } from '@/areas/delivery/OutboxScreen';

export default function Page() {
  return <OutboxScreen />;
}
