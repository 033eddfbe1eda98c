'use client';

import { AgedList } from '@/areas/customers/AgedList';
import { CustomerAccount } from '@/areas/customers/CustomerAccount';
import { routes } from '@/areas/shell/routes';
import { useNamed } from '@/areas/shell/useNamed';

export default function Page() {
  const [id = ''] = useNamed(routes.customers);
  return id === '' ? <AgedList /> : <CustomerAccount key={id} id={id} />;
}
