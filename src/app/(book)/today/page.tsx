import { Today } from '@/areas/today/Today';

export default function Page() {
  return <Today />;
}
