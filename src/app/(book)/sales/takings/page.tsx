import { TakingsForm } from '@/areas/documents/takings/TakingsForm';

export default function Page() {
  return <TakingsForm />;
}
