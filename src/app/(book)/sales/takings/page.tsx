import { TakingsForm } from '@/areas/sales/takings/TakingsForm';

export default function Page() {
  return <TakingsForm />;
}
