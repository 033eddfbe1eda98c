import { BOOK_TABLES, type BookTable } from '@/core/book/tables';
import {
  archiveFaults,
  contentOf,
  isOfToday,
  type Manifest,
  type OpenedArchive,
  openedArchive,
  rowsIn,
} from '@/core/files/archive';
import { accept, type Refusal, type Result, refuse } from '@/core/kernel/result';
import { archiveBook, type OnRows } from './archive';
import { keepCopy, keptCopy } from './copies';
import { derivation } from './derived';
import { storageRefusal } from './perform';
import type { BookDb } from './schema';
import { clearAll, clearUnfinished, mustBeMarked, Overtaken, setMark, takeMark } from './unfinished';

/** What may happen to a book that is there already. */
export interface Replacing {
  /** False: a book that is there, in another window too, is left alone and refused. */
  readonly replace: boolean;
  /** Instant for the copy that is kept of it; null to keep none, where the browser has no room. */
  readonly copyAt: string | null;
  /** Database of the copies; the browser's own unless a test names another. */
  readonly copies?: string;
  /** Who opens it, as nobody else is called; for who would stop it and clear what it wrote. */
  readonly by?: string;
  /** Rows that are written together; as many as suits any book unless a test asks for another number. */
  readonly atOnce?: number;
}

/** Keeps a copy of the book that is about to be replaced. */
async function copyOf(db: BookDb, { copyAt, copies }: Replacing): Promise<Refusal | null> {
  const book = await db.book.get('book');
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
  for (const table of tables) for (const part of parts(table, true)) if (part.ok) yield [table, part.value];
}

/** Rows of some tables that are written together. */
type Piece = readonly (readonly [table: string, rows: readonly unknown[]])[];

/** Rows that are written together, or a few more. */
const AT_ONCE = 10_000;

/** Writes rows and what is derived from them a piece at a time; the next one is read while the last is written. */
async function pour(
  rows: Rows,
  write: (piece: Piece) => PromiseLike<unknown>,
  { atOnce = AT_ONCE }: Replacing,
  onDone: (rows: number) => void,
): Promise<void> {
  let piece: [string, readonly unknown[]][] = [];
  let size = 0;
  let writing: PromiseLike<unknown> | null = null;
  const flush = async () => {
    const next = piece;
    piece = [];
    size = 0;
    await writing;
    writing = write(next);
    // It is waited for with the next one: until then nobody else hears that it failed.
    writing.then(undefined, () => undefined);
  };
  const derived = derivation();
  for (const [table, own] of rows) {
    derived.take(table, own);
    onDone(own.length);
    piece.push([table, own]);
    size += own.length;
    if (size >= atOnce) await flush();
  }
  for (const [table, own] of Object.entries(derived.rows())) piece.push([table, own]);
  await flush();
  await writing;
}

/** Called inside a transaction. */
async function addAll(db: BookDb, piece: Piece): Promise<void> {
  for (const [table, own] of piece) await db.table(table).bulkAdd(own as object[]);
}

/**
 * Writes a book where the mark stands, in several transactions: one with all rows of a large book grows slower with each of
 * them. The last one takes the mark away. Clears what it wrote where it fails.
 */
async function fillMarked(
  db: BookDb,
  rows: Rows,
  by: string,
  replacing: Replacing,
  onDone: (rows: number) => void,
): Promise<void> {
  const written = (piece: Piece) =>
    db.transaction('rw', ['book', ...new Set(piece.map(([table]) => table))], async () => {
      await mustBeMarked(db, by);
      await addAll(db, piece);
    });
  const book: unknown[] = [];
  function* others(): Rows {
    for (const [table, own] of rows)
      if (table === 'book') book.push(...own);
      else yield [table, own];
  }
  try {
    await pour(others(), written, replacing, onDone);
    await db.transaction('rw', 'book', async () => {
      await mustBeMarked(db, by);
      await takeMark(db);
      await addAll(db, [['book', book]]);
    });
    onDone(book.length);
  } catch (error) {
    await clearUnfinished(db, by);
    throw error;
  }
}

/**
 * Opens an archive in place of what the book holds now. Everything is checked first, and a copy of the book that goes is
 * kept, and it is replaced in one transaction: a refusal or a failure changes nothing.
 */
export async function openArchive(
  db: BookDb,
  bytes: Uint8Array,
  replacing: Replacing = { replace: true, copyAt: null },
  onRows: OnRows = () => undefined,
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
  const by = replacing.by ?? crypto.randomUUID();
  try {
    if (await setMark(db, by)) {
      await fillMarked(db, rows.value, by, replacing, onDone);
      return accept(archive.value.manifest);
    }
    return await db.transaction('rw', db.tables, async (): Promise<Result<Manifest>> => {
      if (!replacing.replace && (await db.book.count()) > 0) return refuse({ code: 'book-exists', path: '' });
      await clearAll(db);
      await pour(rows.value, (piece) => addAll(db, piece), replacing, onDone);
      return accept(archive.value.manifest);
    });
  } catch (error) {
    if (error instanceof Overtaken) return refuse({ code: 'book-exists', path: '' });
    return refuse(storageRefusal(error) ?? { code: 'damaged', path: '', expected: 'rows that fit the book' });
  }
}

/** Brings back the book that was replaced last; the one that goes is kept in its place. */
export async function bringBack(db: BookDb, at: string, copies?: string): Promise<Result<Manifest>> {
  const copy = await keptCopy(copies);
  if (copy === null) return refuse({ code: 'no-book', path: '' });
  return openArchive(db, copy.bytes, { replace: true, copyAt: at, ...(copies !== undefined && { copies }) });
}
