import type { ReactNode } from 'react';
import { SalesIndex } from '@/areas/sales/SalesIndex';

export default function Layout({ children }: { readonly children: ReactNode }) {
  return (
    <>
      <SalesIndex />
      {children}
    </>
  );
}
