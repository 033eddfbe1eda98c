import { BOOK_TABLES, type BookContent, type BookTable } from '@/core/book/tables';
import { archiveFaults, archiveWriter, openedArchive, rowsIn } from '@/core/files/archive';
import { bookChecker } from '@/core/files/bookFaults';
import { type Check, READING_ORDER } from '@/core/files/gathering';
import type { Refusal } from '@/core/kernel/result';
import { wholeTable } from './batches';
import type { BookDb } from './schema';

/** Rows that are in memory at a time while a book is gone through. */
const BATCH = 1000;

/** Hears how many rows are done, of how many. */
export type OnRows = (done: number, of: number) => void;

const SILENT: OnRows = () => undefined;

/** Goes through all rows of tables a batch at a time, by their keys, in one transaction so that they are of one moment. */
function throughRows(
  db: BookDb,
  tables: readonly BookTable[],
  take: (table: BookTable, rows: readonly unknown[]) => void,
  onRows: OnRows,
): Promise<void> {
  return db.transaction(
    'r',
    tables.map((name) => db.table(name)),
    async () => {
      const counts = await Promise.all(tables.map((name) => db.table(name).count()));
      const of = counts.reduce((sum, count) => sum + count, 0);
      let done = 0;
      for (const name of tables) {
        await wholeTable(db, name, BATCH, (rows) => {
          take(name, rows);
          done += rows.length;
          if (rows.length > 0) onRows(done, of);
        });
      }
    },
  );
}

/** The whole book as one file. */
export async function archiveBook(db: BookDb, writtenAt: string, onRows: OnRows = SILENT): Promise<Uint8Array> {
  const writer = archiveWriter();
  let business = '';
  await throughRows(
    db,
    BOOK_TABLES,
    (table, rows) => {
      if (table === 'book') business = (rows as BookContent['book'])[0]?.business?.name ?? '';
      writer.add(table, rows);
    },
    onRows,
  );
  return writer.end(business, writtenAt);
}

/**
 * Holds all rows of the book against each other and their seals; empty when everything agrees.
 * @param without checks that somebody else makes.
 */
export async function checkBook(
  db: BookDb,
  without: readonly Check[] = [],
  onRows: OnRows = SILENT,
): Promise<readonly Refusal[]> {
  const checker = bookChecker(without);
  let fault: Refusal | null = null;
  await throughRows(
    db,
    READING_ORDER,
    (table, rows) => {
      for (const row of rows) fault ??= checker.take(table, row);
    },
    onRows,
  );
  return fault === null ? checker.finish() : [fault];
}

/** A book file, and what would keep it from being opened again; empty when it opens. */
export interface SavedBook {
  readonly bytes: Uint8Array;
  readonly refusals: readonly Refusal[];
}

/** The book as a file that was unpacked and checked again before it is handed out. */
export async function saveBook(db: BookDb, writtenAt: string, onRows: OnRows = SILENT): Promise<SavedBook> {
  const bytes = await archiveBook(db, writtenAt, (done, of) => onRows(done, 2 * of));
  const archive = openedArchive(bytes);
  if (!archive.ok) return { bytes, refusals: archive.refusals };
  const of = rowsIn(archive.value);
  let done = of;
  const refusals = archiveFaults(archive.value, (rows) => {
    done += rows;
    onRows(done, 2 * of);
  });
  return { bytes, refusals };
}
