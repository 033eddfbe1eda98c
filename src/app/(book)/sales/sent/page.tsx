import { SentScreen } from '@/areas/delivery/SentScreen';

export default function Page() {
  return <SentScreen />;
}
