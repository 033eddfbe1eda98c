import { Journal } from '@/areas/ledger/Journal';

export default function Page() {
  return <Journal />;
}
