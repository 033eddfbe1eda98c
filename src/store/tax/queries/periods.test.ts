import fc from 'fast-check';
import { issued, newBook } from 'tests/book';
import type { TaxEntry } from '@/core/returns/taxEntry';
import { present } from '../../load';
import type { BookDb } from '../../schema';
import { entriesBehindAll, firstBehind } from './periods';

let db: BookDb;
let first: TaxEntry;
beforeAll(async () => {
  db = await newBook();
  await issued(db);
  first = present(await db.taxEntries.toCollection().first(), 'an entry');
});

/** Leaves one tax entry for each code that is named, of documents numbered in that order; gives the rows of its return. */
async function entriesOf(codes: readonly string[]): Promise<readonly TaxEntry[]> {
  await db.taxEntries.clear();
  await db.taxEntries.bulkAdd(
    codes.map((code, i) => {
      const documentNumber = `INV-${String(i).padStart(4, '0')}`;
      return { ...first, id: `entry-${i}`, documentId: `document-${i}`, documentNumber, code };
    }),
  );
  return [...new Set(codes)].map((code) => ({ ...first, code }));
}

const numbers = (entries: readonly TaxEntry[]) => entries.map(({ documentNumber }) => documentNumber);

test('the first entries behind a return are those that all of them begin with, however they are spread over its rows', async () => {
  const spread = fc.array(fc.constantFrom('A', 'A', 'A', 'A', 'B', 'C', 'D'), { maxLength: 60 });
  await fc.assert(
    fc.asyncProperty(spread, fc.integer({ min: 1, max: 30 }), async (codes, limit) => {
      const rows = await entriesOf(codes);
      const all = await entriesBehindAll(db, rows);
      expect(numbers(await firstBehind(db, rows, limit))).toEqual(numbers(all).slice(0, limit));
    }),
    { numRuns: 30 },
  );
});

test('little more is read than is shown, also where one row has nearly all of them', async () => {
  const codes = Array.from({ length: 400 }, (_, i) => (i % 20 === 7 ? 'B' : i % 20 === 13 ? 'C' : 'A'));
  const rows = await entriesOf(codes);
  let read = 0;
  db.taxEntries.hook('reading', (row) => {
    read += 1;
    return row;
  });
  expect(await firstBehind(db, rows, 25)).toHaveLength(25);
  expect(read).toBeLessThanOrEqual(50);
});
