import type { ReactNode } from 'react';
import { ReceiptsIndex } from '@/areas/payments/ReceiptsIndex';

export default function Layout({ children }: { readonly children: ReactNode }) {
  return (
    <>
      <ReceiptsIndex />
      {children}
    </>
  );
}
