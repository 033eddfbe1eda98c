import type { ReactNode } from 'react';
import { ReceiptsIndex } from '@/areas/receipts/ReceiptsIndex';

export default function Layout({ children }: { readonly children: ReactNode }) {
  return (
    <>
      <ReceiptsIndex />
      {children}
    </>
  );
}
