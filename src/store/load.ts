import type { Book } from '@/core/decisions/changes';
import type { Setting } from '@/core/documents/setting';
import type { BookDb } from './schema';

/** The book's row. @throws Error when no book has begun; screens are only shown once one has. */
export async function loadBook(db: BookDb): Promise<Book> {
  return present(await db.book.get('book'), 'the book');
}

/** What documents of a registration are written against. */
export async function loadSetting(db: BookDb, registrationId: string): Promise<Setting> {
  const [book, registration, codes] = await Promise.all([
    loadBook(db),
    db.registrations.get(registrationId),
    db.taxCodes.toArray(),
  ]);
  return { business: book.business, registration: present(registration, 'the registration'), codes };
}

/** @throws Error when a row that must be there is not: the book is broken, nothing may be written. */
export function present<T>(row: T | undefined, what: string): T {
  if (row === undefined) throw new Error(`${what} is missing from the book`);
  return row;
}
