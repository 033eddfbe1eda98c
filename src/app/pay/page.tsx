import { Suspense } from 'react';
import { CardPage } from '@/areas/cardPage/CardPage';

export default function Page() {
  return (
    <Suspense>
      <CardPage />
    </Suspense>
  );
}
