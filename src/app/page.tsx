import { Home } from '@/areas/start/Home';

export default function Page() {
  return <Home />;
}
