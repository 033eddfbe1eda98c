'use client';

import { useRouter } from 'next/navigation';
import { type ReactNode, useEffect } from 'react';
import { loadRecords } from '@/store/load';
import { BookContext, type OpenBook } from './BookContext';
import { useBook } from './book';
import { Commands } from './Commands';
import { DropEInvoice } from './DropEInvoice';
import { useExchange } from './exchange/useExchange';
import { Keys } from './Keys';
import { usePicked } from './period';
import { Ribbon } from './Ribbon';
import { Spine } from './Spine';

/** The desk: spine, period ribbon, and the area between them. Sends home when no book has begun. */
export function BookShell({ children }: { readonly children: ReactNode }) {
  const router = useRouter();
  const { registrationId } = usePicked();
  const found = useBook(
    async (db): Promise<OpenBook | null> => {
      const [book, records, accounts] = await Promise.all([
        db.book.get('book'),
        loadRecords(db),
        db.accounts.toArray(),
      ]);
      const { registrations, codes } = records;
      const registration = registrations.find((r) => r.id === registrationId) ?? registrations[0];
      if (book === undefined || registration === undefined) return null;
      const { business } = book;
      return { business, currency: business.homeCurrency, registration, registrations, records, codes, accounts };
    },
    [registrationId],
  );
  useEffect(() => {
    if (found === null) router.replace('/');
  }, [found, router]);
  useExchange();
  useEffect(() => {
    // Asks the browser not to clear the book when disk space runs low.
    void navigator.storage?.persist?.();
  }, []);
  if (!found) return null;
  return (
    <BookContext value={found}>
      <div className="flex h-screen">
        <Spine />
        <div className="flex min-w-0 flex-1 flex-col">
          <Ribbon />
          <div className="flex min-h-0 flex-1">{children}</div>
        </div>
      </div>
      <Commands />
      <DropEInvoice />
      <Keys />
    </BookContext>
  );
}
