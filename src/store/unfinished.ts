import { BOOK_TABLES } from '@/core/book/tables';
import type { BookDb } from './schema';

/*
 * A book file is opened into an empty browser by several transactions. Until the last of them a mark stands where the row of
 * the book will: every screen takes the browser for empty, and who opens a file or clears what is there begins anew.
 */

/** Stands in the table of the book while one is written in several transactions. */
interface Mark {
  readonly id: 'unfinished';
  /** Who writes it, as nobody else is called. */
  readonly by: string;
}

const marks = (db: BookDb) => db.table<Mark, string>('book');

const markOf = (db: BookDb) => marks(db).get('unfinished');

/** Whether a book file is being opened into this browser, in whatever window, or once was and did not come to its end. */
export async function isUnfinished(db: BookDb): Promise<boolean> {
  return (await markOf(db)) !== undefined;
}

/** Empties all tables. Called inside a transaction. */
export async function clearAll(db: BookDb): Promise<void> {
  for (const table of db.tables) await table.clear();
}

/** Empties the browser of a book that is not whole. @param by only of what this one wrote; of whoever's unless given. */
export function clearUnfinished(db: BookDb, by?: string): Promise<void> {
  return db.transaction('rw', db.tables, async () => {
    const mark = await markOf(db);
    if (mark !== undefined && (by === undefined || mark.by === by)) await clearAll(db);
  });
}

/** Sets the mark in a browser without a row of any book, or with one that is not whole; false where there are rows of one. */
export function setMark(db: BookDb, by: string): Promise<boolean> {
  return db.transaction('rw', db.tables, async () => {
    if ((await markOf(db)) === undefined) {
      const counts = await Promise.all(BOOK_TABLES.map((table) => db.table(table).limit(1).count()));
      if (counts.some((count) => count > 0)) return false;
    }
    await clearAll(db);
    await marks(db).add({ id: 'unfinished', by });
    return true;
  });
}

/** Takes the mark away, in the transaction that writes the row of the book. */
export function takeMark(db: BookDb): PromiseLike<void> {
  return marks(db).delete('unfinished');
}

/** Another window has begun to open a file, or has cleared what was there. */
export class Overtaken extends Error {}

/** Called inside a transaction that writes. @throws Overtaken where the mark is not this one's any more. */
export async function mustBeMarked(db: BookDb, by: string): Promise<void> {
  if ((await markOf(db))?.by !== by) throw new Overtaken();
}
