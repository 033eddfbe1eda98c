import { RemindersScreen } from '@/areas/customers/RemindersScreen';

export default function Page() {
  return <RemindersScreen />;
}
