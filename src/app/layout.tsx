import type { Metadata } from 'next';
import type { ReactNode } from 'react';
import { KeepApp } from '@/areas/shell/KeepApp';
import { Theme } from '@/ui/Theme';
import './globals.css';

export const metadata: Metadata = {
  title: 'Able Ledger',
  description: 'Invoices, receipts and reconciled tax periods, kept in your browser',
};

export default function RootLayout({ children }: { readonly children: ReactNode }) {
  return (
    <html lang="en" suppressHydrationWarning>
      <body>
        <Theme />
        <KeepApp />
        {children}
      </body>
    </html>
  );
}
