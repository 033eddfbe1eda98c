import { BOOK_TABLES, type BookContent, type BookTable } from '@/core/book/tables';
import { type Manifest, packArchive, unpackArchive } from '@/core/files/archive';
import { bookFaults } from '@/core/files/bookFaults';
import { accept, type Refusal, type Result, refuse } from '@/core/kernel/result';
import { keepCopy, keptCopy } from './copies';
import { derivedRows } from './derived';
import { storageRefusal } from './perform';
import type { BookDb } from './schema';

/** All rows of the book, read in one transaction so that they are of one moment. */
function contentOf(db: BookDb): Promise<BookContent> {
  return db.transaction(
    'r',
    BOOK_TABLES.map((name) => db.table(name)),
    async () => {
      const tables: Partial<Record<BookTable, unknown[]>> = {};
      for (const name of BOOK_TABLES) tables[name] = await db.table(name).toArray();
      return tables as unknown as BookContent;
    },
  );
}

/** The whole book as one file. */
export async function archiveBook(db: BookDb, writtenAt: string): Promise<Uint8Array> {
  return packArchive(await contentOf(db), writtenAt);
}

/** Holds all rows of the book against each other and their seals; empty when everything agrees. */
export async function checkBook(db: BookDb): Promise<readonly Refusal[]> {
  return bookFaults(await contentOf(db));
}

/** A book file, and what would keep it from being opened again; empty when it opens. */
export interface SavedBook {
  readonly bytes: Uint8Array;
  readonly refusals: readonly Refusal[];
}

/** The book as a file that was unpacked and checked again before it is handed out. */
export async function saveBook(db: BookDb, writtenAt: string): Promise<SavedBook> {
  const bytes = await archiveBook(db, writtenAt);
  const read = unpackArchive(bytes);
  return { bytes, refusals: read.ok ? [] : read.refusals };
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

/**
 * Opens an archive in place of what the book holds now. Everything is checked first, and a copy of the
 * book that goes is kept; then one transaction empties and fills all tables, so that a refusal or a
 * failure changes nothing.
 */
export async function openArchive(
  db: BookDb,
  bytes: Uint8Array,
  replacing: Replacing = { replace: true, copyAt: null },
): Promise<Result<Manifest>> {
  const unpacked = unpackArchive(bytes);
  if (!unpacked.ok) return unpacked;
  const { manifest, content } = unpacked.value;
  const uncopied = replacing.replace ? await copyOf(db, replacing) : null;
  if (uncopied !== null) return refuse(uncopied);
  try {
    return await db.transaction('rw', db.tables, async (): Promise<Result<Manifest>> => {
      if (!replacing.replace && (await db.book.count()) > 0) return refuse({ code: 'book-exists', path: '' });
      for (const table of db.tables) await table.clear();
      for (const name of BOOK_TABLES) await db.table(name).bulkAdd([...content[name]]);
      for (const [name, rows] of Object.entries(derivedRows(content))) await db.table(name).bulkAdd([...rows]);
      return accept(manifest);
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
