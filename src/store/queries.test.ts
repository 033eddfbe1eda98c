import { act, day, draftOf, issued, lineOf, newBook } from 'tests/book';
import { onePart } from '@/core/decisions/payments/onePart';
import { NO_FILTER } from '@/core/documents/documentFilter';
import { minor } from '@/core/kernel/money';
import { spanOf } from '@/core/returns/calendar';
import { writeJournal } from './ledger/actions/writeJournal';
import { accountPage, journalEntry, journalOf, latestEvents } from './ledger/queries/ledger';
import { present } from './load';
import { recordReceipt } from './payments/actions/recordReceipt';
import { debtsOf } from './payments/queries/debts';
import { keepDraft } from './sales/actions/drafts';
import { enterOpening } from './sales/actions/takings';
import {
  draftsFound,
  findCustomers,
  findItems,
  findReceipts,
  overdueInvoices,
  receiptsOf,
} from './sales/queries/documents';
import { findDocuments, searchDocuments } from './sales/queries/findDocuments';
import { orderUsedBefore } from './sales/queries/orderUsed';
import type { BookDb } from './schema';
import { entriesBehind, periodReturn, ribbon } from './tax/queries/periods';

let db: BookDb;
beforeAll(async () => {
  db = await newBook();
  await issued(db, { issueDate: '2026-01-10', customerId: 'clewbay', due: '14d', orderNumber: 'CB-118' });
  await issued(db, { issueDate: '2026-01-20', lines: [lineOf({ price: '10', taxCode: 'IE-Z' })] });
  await issued(db, { issueDate: '2026-03-05', customerId: 'clewbay', due: '2026-06-01' });
  await act(db, keepDraft, draftOf({ orderNumber: 'PO-77' }), '2026-03-06');
});

const JAN_FEB = spanOf('two-monthly', day('2026-01-01'));
const registration = async () => present(await db.registrations.get('ie-vat'), 'registration');

async function inPeriod(limit: number) {
  const filter = { ...NO_FILTER, from: JAN_FEB.start, until: JAN_FEB.end };
  return (await findDocuments(db, '', limit, filter, day('2026-03-06'))).documents;
}

describe('documents', () => {
  test('of a period come newest first, a page at a time', async () => {
    expect((await inPeriod(10)).map((d) => d.number)).toEqual(['INV-2026-0002', 'INV-2026-0001']);
    expect((await inPeriod(1)).map((d) => d.number)).toEqual(['INV-2026-0002']);
  });
  test.each([
    ['0001', ['INV-2026-0001']],
    ['almon', ['INV-2026-0001', 'INV-2026-0003']],
    ['salmon 118', ['INV-2026-0001']],
    ['salmon nobody', []],
    ['  ', []],
  ])('%p finds %p', async (query, numbers) => {
    expect((await searchDocuments(db, query, 10, day('2026-03-06'))).map((d) => d.number).sort()).toEqual(numbers);
  });
  test('an order number is known from another document for the same customer alone', async () => {
    const ordered = (over: object) =>
      orderUsedBefore(db, draftOf({ customerId: 'clewbay', orderNumber: 'CB-118', ...over }));
    expect(await ordered({})).toBe('INV-2026-0001');
    expect(await ordered({ orderNumber: 'CB-11' })).toBe('');
    expect(await ordered({ customerId: 'ballyvaughan' })).toBe('');
  });
  test('drafts, customers, items and receipts are found by any part of any word', async () => {
    expect(await draftsFound(db, 'x-77', 5)).toHaveLength(0);
    expect(await draftsFound(db, '77', 5)).toHaveLength(1);
    expect(await draftsFound(db, '', 5)).toHaveLength(1);
    expect((await findCustomers(db, 'vaughan', 5)).map((c) => c.id)).toEqual(['ballyvaughan']);
    expect((await findCustomers(db, '', 3)).map((c) => c.name)).toEqual([
      'Ballyvaughan Harbour Board',
      'Clew Bay Salmon Co-op',
      'Inishmaan Shellfish',
    ]);
    expect((await findItems(db, 'buoy', 5)).map((i) => i.id).sort()).toEqual(['buoy', 'hire']);
    expect(await findItems(db, '', 100)).toHaveLength(8);
    expect(await findReceipts(db, '', 5)).toEqual([]);
  });
  test('open and overdue ones come by due date', async () => {
    expect((await debtsOf(db, 'clewbay')).map(({ document }) => document.dueDate)).toEqual([
      '2026-01-24',
      '2026-06-01',
    ]);
    expect((await overdueInvoices(db, '2026-01-24', 10)).map((d) => d.number)).toEqual([]);
    expect((await overdueInvoices(db, '2026-01-25', 10)).map((d) => d.number)).toEqual(['INV-2026-0001']);
  });
  test('overdue ones are those of the old books too, each on the day after it was due', async () => {
    const old = await newBook();
    const item = { customerId: 'clewbay', date: '2025-11-30', due: '2026-01-10', number: 'A-991', amount: '120.00' };
    await act(old, enterOpening, item, '2026-01-05');
    const overdueOn = async (today: string) => (await overdueInvoices(old, today, 10)).map((d) => d.number);
    expect([await overdueOn('2026-01-10'), await overdueOn('2026-01-11')]).toEqual([[], ['OB-2025-0001']]);
  });
  test('know the receipts that settled them', async () => {
    const [debt] = await debtsOf(db, 'ballyvaughan');
    if (debt === undefined) throw new Error('nothing open');
    const { document } = debt;
    const allocations = [{ documentId: document.id, number: document.number, amount: document.open }];
    await act(
      db,
      recordReceipt,
      onePart({ customerId: 'ballyvaughan', date: '2026-02-02', method: 'card', reference: 'till 4', allocations }),
      '2026-02-02',
    );
    expect((await receiptsOf(db, [document.id])).map((r) => r.number)).toEqual(['REC-2026-0001']);
    expect((await findReceipts(db, 'till', 5)).map((r) => r.number)).toEqual(['REC-2026-0001']);
    expect(await debtsOf(db, 'ballyvaughan')).toEqual([]);
  });
});

describe('periods', () => {
  test('stand on the ribbon with their state and tax', async () => {
    const cells = await ribbon(db, await registration(), day('2026-05-02'), 6);
    expect(cells.map((c) => [c.span.start, c.state, c.figures.tax])).toEqual([
      ['2026-01-01', 'closing', 2300n],
      ['2026-03-01', 'closing', 2300n],
      ['2026-05-01', 'open', 0n],
    ]);
    expect((await ribbon(db, await registration(), day('2026-05-02'), 1)).map((c) => c.span.start)).toEqual([
      '2026-05-01',
    ]);
  });
  test('open the entries behind each row', async () => {
    const { figures, period } = await periodReturn(db, await registration(), JAN_FEB.start);
    expect(period?.filed).toBeNull();
    for (const row of figures.rows) {
      const entries = await entriesBehind(db, row);
      expect(entries.reduce((sum, e) => sum + e.base, 0n)).toBe(row.base);
      expect(entries).toHaveLength(row.entries);
    }
  });
  test('are in trouble when a journal touches their tax', async () => {
    const sides = [
      { account: '7900', amount: minor(100n) },
      { account: '2200', amount: minor(-100n) },
    ];
    await act(db, writeJournal, { date: '2026-03-31', text: 'by hand', sides }, '2026-04-01');
    const cells = await ribbon(db, await registration(), day('2026-05-02'), 6);
    expect(cells.map((c) => c.state)).toEqual(['closing', 'differing', 'differing']);
  });
});

describe('the ledger', () => {
  test('shows entries of a period with their lines, newest first', async () => {
    const entries = await journalOf(db, JAN_FEB, 10);
    expect(entries.map((e) => e.entry.date)).toEqual(['2026-02-02', '2026-01-20', '2026-01-10']);
    expect(entries[2]?.lines.map((l) => l.amount)).toEqual([12300n, -10000n, -2300n]);
    const id = entries[0]?.entry.id ?? '';
    expect((await journalEntry(db, id)).map((e) => e.entry.id)).toEqual([id]);
    expect(await journalEntry(db, 'nothing')).toEqual([]);
  });
  test('carries an account forward, line by line, and down', async () => {
    const page = await accountPage(db, '1100', spanOf('two-monthly', day('2026-03-01')), 10);
    expect([page.opening, page.lines.map((l) => l.amount), page.closing, page.more]).toEqual([
      12300n,
      [12300n],
      24600n,
      false,
    ]);
    const first = await accountPage(db, '1100', JAN_FEB, 1);
    expect([first.opening, first.lines.length, first.closing, first.more]).toEqual([0n, 1, 12300n, true]);
  });
  test('the audit trail is found by every word of what was done, about what, by whom, when', async () => {
    const found = async (text: string) =>
      (await latestEvents(db, text, 50)).map(({ action, subject }) => `${action} ${subject}`);
    expect(await found('issue inv-2026-0001')).toEqual(['issue invoice INV-2026-0001']);
    expect((await found('TESTER 2026-01')).length).toBeGreaterThan(2);
    expect(await found('issue nobody')).toEqual([]);
    expect(await latestEvents(db, '', 2)).toHaveLength(2);
  });
});
