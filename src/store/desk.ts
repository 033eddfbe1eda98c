import type { Book } from '@/core/book/rows';
import type { Account } from '@/core/ledger/account';
import type { TaxRecords } from '@/core/tax/taxSetup';
import { loadRecords } from './load';
import type { BookDb } from './schema';

/** What every screen rests on. */
export interface Desk {
  /** Null before a book has begun, or where its own row is lost. */
  readonly book: Book | null;
  readonly records: TaxRecords;
  readonly accounts: readonly Account[];
  /** Nothing of a book is there at all. */
  readonly empty: boolean;
}

export async function deskOf(db: BookDb): Promise<Desk> {
  const [book, records, accounts, customers, documents] = await Promise.all([
    db.book.get('book'),
    loadRecords(db),
    db.accounts.toArray(),
    db.customers.limit(1).count(),
    db.documents.limit(1).count(),
  ]);
  const empty = book === undefined && customers + documents + records.registrations.length === 0;
  return { book: book ?? null, records, accounts, empty };
}
