import Dexie from 'dexie';
import {
  accountRow,
  BOOK_CSV_HEADS,
  type BookCsv,
  documentLines,
  entryRows,
  receiptRows,
  returnRows,
} from '@/core/files/bookCsv';
import { csvRows, writeCsv } from '@/core/files/csv';
import type { Currency } from '@/core/kernel/currency';
import { grouped } from '@/core/kernel/grouped';
import { loadBook } from '../../load';
import type { BookDb } from '../../schema';

type Rows = readonly (readonly string[])[];

/** Rows that are in memory at a time. */
const BATCH = 500;

/** Goes through a table by an index a batch at a time. */
async function* batches<Row>(
  db: BookDb,
  table: 'documents' | 'receipts' | 'journal',
  index: string,
  keyOf: (row: Row) => unknown,
): AsyncGenerator<readonly Row[]> {
  let after: unknown = Dexie.minKey;
  for (;;) {
    const rows = (await db.table(table).where(index).above(after).limit(BATCH).toArray()) as Row[];
    yield rows;
    const last = rows.at(-1);
    if (last === undefined || rows.length < BATCH) return;
    after = keyOf(last);
  }
}

async function* documents(db: BookDb): AsyncGenerator<Rows> {
  const all = batches<Parameters<typeof documentLines>[0]>(db, 'documents', '[issueDate+number]', (one) => [
    one.issueDate,
    one.number,
  ]);
  for await (const some of all) yield some.flatMap(documentLines);
}

async function* receipts(db: BookDb): AsyncGenerator<Rows> {
  const all = batches<Parameters<typeof receiptRows>[0]>(db, 'receipts', '[date+number]', (one) => [
    one.date,
    one.number,
  ]);
  for await (const some of all) {
    const made = await db.allocations
      .where('creditId')
      .anyOf(some.map(({ id }) => id))
      .toArray();
    const byReceipt = grouped(made, ({ creditId }) => creditId);
    yield some.flatMap((receipt) => receiptRows(receipt, byReceipt.get(receipt.id) ?? []));
  }
}

async function* entries(db: BookDb, home: Currency): AsyncGenerator<Rows> {
  const all = batches<Parameters<typeof entryRows>[0]['entry']>(db, 'journal', '[date+id]', (one) => [
    one.date,
    one.id,
  ]);
  for await (const some of all) {
    const lines = await db.journalLines
      .where('entryId')
      .anyOf(some.map(({ id }) => id))
      .toArray();
    const byEntry = grouped(lines, ({ entryId }) => entryId);
    yield some.flatMap((entry) => entryRows({ entry, lines: byEntry.get(entry.id) ?? [] }, home));
  }
}

async function* returns(db: BookDb, home: Currency): AsyncGenerator<Rows> {
  for (const registration of await db.registrations.toArray()) {
    const { id } = registration;
    for (const period of await db.taxPeriods.where('[registrationId+start]').between([id, ''], [id, '~']).toArray()) {
      const rows = period.filed?.figures.rows ?? (await db.taxRows.where('periodId').equals(period.id).toArray());
      yield returnRows(period, rows, registration, home);
    }
  }
}

async function* accounts(db: BookDb): AsyncGenerator<Rows> {
  yield (await db.accounts.orderBy('code').toArray()).map(accountRow);
}

/** One kind of the book as a CSV file, piece by piece. */
export async function* bookCsv(db: BookDb, what: BookCsv): AsyncGenerator<string> {
  const home = (await loadBook(db)).business.homeCurrency;
  const rowsOf = { documents, receipts, entries, returns, accounts }[what];
  yield writeCsv(BOOK_CSV_HEADS[what], []);
  for await (const rows of rowsOf(db, home)) if (rows.length > 0) yield csvRows(rows);
}
