import { Register } from '@/areas/sales/register/Register';

export default function Page() {
  return <Register />;
}
