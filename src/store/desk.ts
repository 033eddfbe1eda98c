import type { Book } from '@/core/book/rows';
import type { Account } from '@/core/ledger/account';
import type { TaxRecords } from '@/core/tax/taxSetup';
import { loadRecords } from './load';
import type { BookDb } from './schema';
import { isUnfinished } from './unfinished';

/** What every screen rests on. */
export interface Desk {
  /** Null before a book has begun, or where its own row is lost. */
  readonly book: Book | null;
  readonly records: TaxRecords;
  readonly accounts: readonly Account[];
  /** Nothing of a book is there at all, or what a file that is not opened to its end has put there. */
  readonly empty: boolean;
}

export async function deskOf(db: BookDb): Promise<Desk> {
  const [book, records, accounts] = await Promise.all([db.book.get('book'), loadRecords(db), db.accounts.toArray()]);
  // Asked only where there is no book: else each document that is issued would have every screen asked again.
  const empty =
    book === undefined && ((await isUnfinished(db)) || (records.registrations.length === 0 && !(await hasWork(db))));
  return { book: book ?? null, records, accounts, empty };
}

async function hasWork(db: BookDb): Promise<boolean> {
  const counts = await Promise.all([db.customers.limit(1).count(), db.documents.limit(1).count()]);
  return counts.some((count) => count > 0);
}
