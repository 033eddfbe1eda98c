import { Suspense } from 'react';
import { ReconcileScreen } from '@/areas/bank/ReconcileScreen';

export default function Page() {
  return (
    <Suspense>
      <ReconcileScreen />
    </Suspense>
  );
}
