import type { Metadata } from 'next';
import { connection } from 'next/server';
import type { ReactNode } from 'react';
import { Theme } from '@/ui/Theme';
import './globals.css';

export const metadata: Metadata = {
  title: 'Able Ledger',
  description: 'Invoices, receipts and provable tax periods, kept in your browser',
};

export default async function RootLayout({ children }: { readonly children: ReactNode }) {
  // Pages render for each request, so that scripts can carry the nonce of the security policy.
  await connection();
  return (
    <html lang="en" suppressHydrationWarning>
      <body>
        <Theme />
        {children}
      </body>
    </html>
  );
}
