import { Suspense } from 'react';
import { TaxScreen } from '@/areas/tax/TaxScreen';

export default function Page() {
  return (
    <Suspense>
      <TaxScreen />
    </Suspense>
  );
}
