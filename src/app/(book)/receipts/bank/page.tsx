import { Suspense } from 'react';
import { BankScreen } from '@/areas/bank/BankScreen';

export default function Page() {
  return (
    <Suspense>
      <BankScreen />
    </Suspense>
  );
}
