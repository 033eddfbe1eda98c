import Dexie from 'dexie';
import { BOOK_TABLES, type BookContent, type BookTable, descriptorOf } from '@/core/book/tables';
import {
  archiveFaults,
  archiveWriter,
  contentOf,
  isOfToday,
  type Manifest,
  type OpenedArchive,
  openedArchive,
  rowsIn,
} from '@/core/files/archive';
import { bookChecker } from '@/core/files/bookFaults';
import { type Check, READING_ORDER } from '@/core/files/gathering';
import { accept, type Refusal, type Result, refuse } from '@/core/kernel/result';
import { inBatches } from './batches';
import { keepCopy, keptCopy } from './copies';
import { derivation } from './derived';
import { storageRefusal } from './perform';
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
        const { key } = descriptorOf(name);
        await inBatches<Readonly<Record<string, unknown>>>(
          BATCH,
          (after) =>
            db
              .table(name)
              .where(':id')
              .above(after?.[key] ?? Dexie.minKey)
              .limit(BATCH)
              .toArray(),
          (rows) => {
            take(name, rows);
            done += rows.length;
            if (rows.length > 0) onRows(done, of);
          },
        );
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
      if (table === 'book') business = (rows as BookContent['book'])[0]?.business.name ?? '';
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
export async function checkBook(db: BookDb, without: readonly Check[] = []): Promise<readonly Refusal[]> {
  const checker = bookChecker(without);
  let fault: Refusal | null = null;
  await throughRows(
    db,
    READING_ORDER,
    (table, rows) => {
      for (const row of rows) fault ??= checker.take(table, row);
    },
    SILENT,
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

/** What may happen to a book that is there already. */
export interface Replacing {
  /** False: a book that is there, in another window too, is left alone and refused. */
  readonly replace: boolean;
  /** Instant for the copy that is kept of it; null to keep none, where the browser has no room. */
  readonly copyAt: string | null;
  /** Database of the copies; the browser's own unless a test names another. */
  readonly copies?: string;
}

/** Keeps a copy of the book that is about to be replaced. */
async function copyOf(db: BookDb, { copyAt, copies }: Replacing): Promise<Refusal | null> {
  const book = await db.book.toCollection().first();
  if (copyAt === null || book === undefined) return null;
  try {
    const bytes = await archiveBook(db, copyAt);
    await keepCopy({ business: book.business?.name ?? '', madeAt: copyAt, bytes }, copies);
    return null;
  } catch (error) {
    return storageRefusal(error) ?? { code: 'storage-failed', path: '', found: (error as Error).name };
  }
}

/** Rows of a table, some at a time. */
type Rows = Iterable<readonly [table: BookTable, rows: readonly unknown[]]>;

/** What an archive holds once nothing of it is left to check: a part at a time where it is of today, else brought up as a whole. */
function checkedRows(archive: OpenedArchive, onDone: (rows: number) => void): Result<Rows> {
  if (!isOfToday(archive)) {
    const content = contentOf(archive);
    return content.ok ? accept(BOOK_TABLES.map((table) => [table, content.value[table]] as const)) : content;
  }
  const faults = archiveFaults(archive, onDone);
  return faults.length > 0 ? refuse(...faults) : accept(partsOf(archive));
}

function* partsOf({ tables, parts }: OpenedArchive): Generator<readonly [BookTable, readonly unknown[]]> {
  for (const table of tables) for (const part of parts(table)) if (part.ok) yield [table, part.value];
}

/** Puts rows in place of all that the book holds, and what is derived from them. Called inside a transaction. */
async function replaceRows(db: BookDb, rows: Rows, onDone: (rows: number) => void): Promise<void> {
  for (const table of db.tables) await table.clear();
  // The next rows are read while the last ones are written.
  let writing: PromiseLike<unknown> = Dexie.Promise.resolve();
  const write = async (table: string, own: readonly unknown[]) => {
    for (let from = 0; from < own.length; from += BATCH) {
      const next = db.table(table).bulkAdd(own.slice(from, from + BATCH) as object[]);
      // It is waited for with the next one: until then nobody else hears that it failed.
      next.catch(() => undefined);
      await writing;
      writing = next;
    }
  };
  const derived = derivation();
  for (const [table, part] of rows) {
    await write(table, part);
    derived.take(table, part);
    onDone(part.length);
  }
  for (const [table, own] of Object.entries(derived.rows())) await write(table, own);
  await writing;
}

/**
 * Opens an archive in place of what the book holds now. Everything is checked first, and a copy of the
 * book that goes is kept; then one transaction empties and fills all tables, so that a refusal or a
 * failure changes nothing.
 */
export async function openArchive(
  db: BookDb,
  bytes: Uint8Array,
  replacing: Replacing = { replace: true, copyAt: null },
  onRows: OnRows = SILENT,
): Promise<Result<Manifest>> {
  const archive = openedArchive(bytes);
  if (!archive.ok) return archive;
  const of = 2 * rowsIn(archive.value);
  let done = 0;
  const onDone = (rows: number) => {
    done += rows;
    onRows(done, of);
  };
  const rows = checkedRows(archive.value, onDone);
  if (!rows.ok) return rows;
  const uncopied = replacing.replace ? await copyOf(db, replacing) : null;
  if (uncopied !== null) return refuse(uncopied);
  try {
    return await db.transaction('rw', db.tables, async (): Promise<Result<Manifest>> => {
      if (!replacing.replace && (await db.book.count()) > 0) return refuse({ code: 'book-exists', path: '' });
      await replaceRows(db, rows.value, onDone);
      return accept(archive.value.manifest);
    });
  } catch (error) {
    const refusal = storageRefusal(error);
    return refuse(refusal ?? { code: 'damaged', path: '', expected: 'rows that fit the book' });
  }
}

/** Brings back the book that was replaced last; the one that goes is kept in its place. */
export async function bringBack(db: BookDb, at: string, copies?: string): Promise<Result<Manifest>> {
  const copy = await keptCopy(copies);
  if (copy === null) return refuse({ code: 'no-book', path: '' });
  return openArchive(db, copy.bytes, { replace: true, copyAt: at, ...(copies !== undefined && { copies }) });
}
