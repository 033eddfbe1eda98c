import type { BookRows, BookTable } from '@/core/book/tables';
import type { BookDb } from './schema';

/* Reading a record by its key, and whole tables that a person fills by hand and that stay small. */

/** Tables of tens of rows. */
type SmallTable = 'series' | 'messageTemplates' | 'styles' | 'bankAccounts' | 'bankRules' | 'priceLists' | 'savedViews';

/** The row with this key; null where there is none. */
export async function recordOf<T extends BookTable>(db: BookDb, table: T, id: string): Promise<BookRows[T] | null> {
  return (await db.table<BookRows[T], string>(table).get(id)) ?? null;
}

/** Every row of a small table. */
export function allOf<T extends SmallTable>(db: BookDb, table: T): Promise<BookRows[T][]> {
  return db.table<BookRows[T], string>(table).toArray();
}

/** Whether a book has begun in this browser. */
export async function hasBook(db: BookDb): Promise<boolean> {
  return (await db.book.get('book')) !== undefined;
}

/** How many events the audit trail holds: it grows with everything that is written. */
export function countEvents(db: BookDb): Promise<number> {
  return db.audit.count();
}
