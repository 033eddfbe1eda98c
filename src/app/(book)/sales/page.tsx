import { Register } from '@/areas/documents/register/Register';

export default function Page() {
  return <Register />;
}
