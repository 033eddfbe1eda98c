import { OpenDemo } from '@/areas/start/OpenDemo';

export default function Page() {
  return <OpenDemo />;
}
