import { Rescue } from '@/areas/start/Rescue';

export default function Page() {
  return <Rescue />;
}
