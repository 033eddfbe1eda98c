import type { ReactNode } from 'react';
import { SalesIndex } from '@/areas/documents/SalesIndex';

export default function Layout({ children }: { readonly children: ReactNode }) {
  return (
    <>
      <SalesIndex />
      {children}
    </>
  );
}
