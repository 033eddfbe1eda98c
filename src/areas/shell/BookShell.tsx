'use client';

import { useRouter } from 'next/navigation';
import { type ReactNode, useEffect } from 'react';
import { BookContext, type OpenBook } from './BookContext';
import { useBook } from './book';
import { Commands } from './Commands';
import { Keys } from './Keys';
import { Ribbon } from './Ribbon';
import { Spine } from './Spine';

/** The desk: spine, period ribbon, and the area between them. Sends home when no book has begun. */
export function BookShell({ children }: { readonly children: ReactNode }) {
  const router = useRouter();
  const found = useBook(async (db): Promise<OpenBook | null> => {
    const [book, registrations, codes, accounts] = await Promise.all([
      db.book.get('book'),
      db.registrations.toArray(),
      db.taxCodes.toArray(),
      db.accounts.toArray(),
    ]);
    const [registration] = registrations;
    if (book === undefined || registration === undefined) return null;
    const { business } = book;
    return { business, currency: business.homeCurrency, registration, codes, accounts };
  });
  useEffect(() => {
    if (found === null) router.replace('/');
  }, [found, router]);
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
      <Keys />
    </BookContext>
  );
}
