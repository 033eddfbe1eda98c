import Dexie from 'dexie';
import { BOOK_TABLES } from '@/core/book/tables';
import { isoDate } from '@/core/kernel/date';
import { AGE_LIMITS } from '@/core/settlement/account';
import { archiveBook } from '@/store/archive';
import { agedList } from '@/store/customers/queries/account';
import { present } from '@/store/load';
import { openArchive } from '@/store/openArchive';
import { reportKind } from '@/store/reports/catalogue';
import { BookDb } from '@/store/schema';
import { firstBehind, periodReturn } from '@/store/tax/queries/periods';
import { proveBook } from '@/store/tax/queries/proveBook';
import { rowsRead, timed } from './books';

/* A whole book of a sample file, as large as it is. Times in milliseconds. */

/** The last day of the samples, the end of a month. */
const DAY = isoDate('2026-10-31');
const BATCH = 5000;
/** Rows of a first page: as many as the small book has, too. */
const PAGE = 25;

const nameOf = (file: string) => `bench-${file}`;

async function bytesOf(file: string): Promise<Uint8Array> {
  return new Uint8Array(await (await fetch(`/${file}`)).arrayBuffer());
}

/** Opens a book file in the browser: checked, written, and what is derived worked out. */
export async function openLarge(file: string): Promise<{ documents: number; rows: number; time: number }> {
  const db = new BookDb(nameOf(file));
  await db.delete();
  await db.open();
  const bytes = await bytesOf(file);
  const began = performance.now();
  const opened = await openArchive(db, bytes);
  const time = performance.now() - began;
  if (!opened.ok) throw new Error(JSON.stringify(opened.refusals));
  const rows = await Promise.all(BOOK_TABLES.map((name) => db.table(name).count()));
  return { documents: await db.documents.count(), rows: rows.reduce((sum, count) => sum + count, 0), time };
}

/** Writes the book of a file that was opened out again. */
export async function saveLarge(file: string): Promise<{ bytes: number; time: number }> {
  const began = performance.now();
  const bytes = await archiveBook(new BookDb(nameOf(file)), '2026-11-01T09:00:00.000Z');
  return { bytes: bytes.length, time: performance.now() - began };
}

const report = (name: string, from: string, until: string) => (db: BookDb) => {
  const kind = reportKind(name);
  if (kind === null) throw new RangeError(`no report ${name}`);
  return kind.make(db, { from: isoDate(from), until: isoDate(until) });
};

/** What screens and reports read of a book. `days` is a span that holds as many documents in every book that is compared. */
export async function readsOfLarge(
  file: string,
  days: { readonly from: string; readonly until: string },
): Promise<readonly { name: string; read: number; time: number }[]> {
  const db = new BookDb(nameOf(file));
  const registration = present(await db.registrations.get('ie-vat'), 'the registration');
  const ways: readonly (readonly [string, number, (db: BookDb) => Promise<unknown>])[] = [
    ['aged list, first page', 25, () => agedList(db, DAY, AGE_LIMITS, PAGE)],
    [
      'return by document, first page',
      25,
      async () => {
        const { figures } = await periodReturn(db, registration, isoDate('2026-09-01'));
        return firstBehind(db, figures.rows, PAGE);
      },
    ],
    ['trial balance, two years', 25, () => report('trial-balance', '2024-11-01', DAY)(db)],
    ['sales by customer, as many documents', 5, () => report('sales-by-customer', days.from, days.until)(db)],
  ];
  const found = [];
  for (const [name, runs, work] of ways)
    found.push({ name, read: await rowsRead(db, () => work(db)), time: await timed(runs, () => work(db)) });
  return found;
}

/** Reads so many rows of a table by their keys, a batch at a time, again from the first where it has fewer. */
async function readRows(db: BookDb, name: string, count: number): Promise<void> {
  const { keyPath } = db.table(name).schema.primKey;
  let after: unknown = Dexie.minKey;
  for (let left = count; left > 0; ) {
    const rows = await db.table(name).where(':id').above(after).limit(Math.min(BATCH, left)).toArray();
    left -= rows.length;
    after = rows.length < BATCH ? Dexie.minKey : rows.at(-1)[String(keyPath)];
  }
}

/** The proof of the whole book, against reading as many rows as it reads, table by table. */
export async function proofOfLarge(
  file: string,
): Promise<{ holds: boolean; read: number; proven: number; raw: number }> {
  const db = new BookDb(nameOf(file));
  let began = performance.now();
  const checks = await proveBook(db, () => undefined);
  const proven = performance.now() - began;
  const counts = new Map<string, number>();
  const hooks = db.tables.map((table) => {
    const count = <T>(row: T): T => {
      counts.set(table.name, (counts.get(table.name) ?? 0) + 1);
      return row;
    };
    table.hook('reading', count);
    return () => table.hook('reading').unsubscribe(count);
  });
  await proveBook(db, () => undefined);
  for (const unhook of hooks) unhook();
  began = performance.now();
  for (const [name, count] of counts) await readRows(db, name, count);
  const raw = performance.now() - began;
  const read = [...counts.values()].reduce((sum, count) => sum + count, 0);
  return { holds: checks.every(({ holds }) => holds), read, proven, raw };
}
