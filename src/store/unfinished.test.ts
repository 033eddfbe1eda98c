import { day, momentOn, refusalCodes, wholeBook } from 'tests/book';
import { buildDemo } from '@/demo/buildDemo';
import { DEMO_BUSINESS } from '@/demo/setup';
import { archiveBook } from './archive';
import { deskOf } from './desk';
import { openArchive } from './openArchive';
import { perform } from './perform';
import { hasBook } from './records';
import { BookDb } from './schema';
import { begin } from './setup/actions/setup';
import { clearUnfinished, isUnfinished, setMark } from './unfinished';

const AT = '2026-11-23T10:00:00.000Z';
const NONE = { replace: false, copyAt: null };
let bytes: Uint8Array;

beforeAll(async () => {
  const demo = new BookDb('unfinished-source');
  await buildDemo(demo, day('2026-11-23'));
  bytes = await archiveBook(demo, AT);
});

const rowsOf = async (db: BookDb) => Object.values(await wholeBook(db)).reduce((sum, { length }) => sum + length, 0);

/** What a window leaves that was closed while it opened a file. */
async function leftHalf(name: string): Promise<BookDb> {
  const db = new BookDb(name);
  await setMark(db, 'a window that was closed');
  await db.customerBalances.add({ customerId: 'left-over', open: 1n as never });
  return db;
}

describe('a book file opened into an empty browser', () => {
  test('is written in several transactions, and is the very book however many there are', async () => {
    const transactions: number[] = [];
    for (const atOnce of [20, 200, 1_000_000]) {
      const db = new BookDb(`in-pieces-of-${atOnce}`);
      const transaction = jest.spyOn(db, 'transaction');
      expect(await openArchive(db, bytes, { ...NONE, atOnce })).toMatchObject({ ok: true });
      transactions.push(transaction.mock.calls.length);
      expect(await archiveBook(db, AT)).toEqual(bytes);
    }
    const [most = 0, some = 0, fewest] = transactions;
    // The mark; all rows at once; the row of the book, with the mark taken away.
    expect(fewest).toBe(3);
    expect(some).toBeGreaterThan(3);
    expect(most).toBeGreaterThan(some);
  });

  test('that fills the disk midway leaves nothing at all', async () => {
    const db = new BookDb('full-midway');
    const { add } = IDBObjectStore.prototype;
    let rows = 0;
    const spied = jest.spyOn(IDBObjectStore.prototype, 'add').mockImplementation(function (
      this: IDBObjectStore,
      ...given
    ) {
      rows += 1;
      if (rows > 400) throw new DOMException('full', 'QuotaExceededError');
      return add.apply(this, given);
    });
    const result = await openArchive(db, bytes, { ...NONE, atOnce: 100 });
    spied.mockRestore();
    expect(refusalCodes(result)).toEqual(['storage-full']);
    expect(await rowsOf(db)).toBe(0);
    expect([await hasBook(db), await isUnfinished(db)]).toEqual([false, false]);
  });

  test('by two windows at once is opened by one of them, whole', async () => {
    const db = new BookDb('two-windows-in-pieces');
    const both = await Promise.all([
      openArchive(db, bytes, { ...NONE, atOnce: 100 }),
      openArchive(db, bytes, { ...NONE, atOnce: 100 }),
    ]);
    expect(both.map((result) => (result.ok ? 'opened' : result.refusals[0]?.code)).sort()).toEqual([
      'book-exists',
      'opened',
    ]);
    expect(await archiveBook(db, AT)).toEqual(bytes);
  });
});

describe('what a window left that was closed while it opened a file', () => {
  test('is no book: screens go to the beginning, and a new one does not begin upon it', async () => {
    const db = await leftHalf('left-half');
    expect([await hasBook(db), await isUnfinished(db)]).toEqual([false, true]);
    expect(await deskOf(db)).toMatchObject({ book: null, empty: true });
    const begun = await perform(db, begin, { business: DEMO_BUSINESS } as never, momentOn('2026-11-23'));
    expect(refusalCodes(begun)).toEqual(['book-exists']);
  });

  test('is replaced by a file that is opened again', async () => {
    const db = await leftHalf('left-half-opened');
    expect(await openArchive(db, bytes, NONE)).toMatchObject({ ok: true });
    expect(await archiveBook(db, AT)).toEqual(bytes);
    expect(await db.customerBalances.get('left-over')).toBeUndefined();
    expect(await isUnfinished(db)).toBe(false);
  });

  test('is cleared by whoever asks, but by a window that was stopped only where it is its own', async () => {
    const db = await leftHalf('left-half-cleared');
    const left = await rowsOf(db);
    await clearUnfinished(db, 'another window');
    expect(await rowsOf(db)).toBe(left);
    await clearUnfinished(db, 'a window that was closed');
    expect(await rowsOf(db)).toBe(0);
  });

  test('a whole book is never cleared so', async () => {
    const db = new BookDb('whole-not-cleared');
    await openArchive(db, bytes, NONE);
    const rows = await rowsOf(db);
    await clearUnfinished(db);
    expect(await rowsOf(db)).toBe(rows);
    expect(await setMark(db, 'a third window')).toBe(false);
  });
});

test('rows of a book whose own row is lost give way to a file, in one transaction, though none was to be replaced', async () => {
  const db = new BookDb('own-row-lost');
  await openArchive(db, bytes, NONE);
  await db.book.clear();
  await db.documents.clear();
  const transaction = jest.spyOn(db, 'transaction');
  expect(await openArchive(db, bytes, { ...NONE, atOnce: 20 })).toMatchObject({ ok: true });
  // The look whether the browser is empty, and all rows.
  expect(transaction).toHaveBeenCalledTimes(2);
  expect(await archiveBook(db, AT)).toEqual(bytes);
});
