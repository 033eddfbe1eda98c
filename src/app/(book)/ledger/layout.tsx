import type { ReactNode } from 'react';
import { LedgerIndex } from '@/areas/ledger/LedgerIndex';

export default function Layout({ children }: { readonly children: ReactNode }) {
  return (
    <>
      <LedgerIndex />
      {children}
    </>
  );
}
