import { act, day, EUR, issued, lineOf, momentOn, newBook, wholeBook } from 'tests/book';
import { expectSoundBook } from 'tests/soundBook';
import { BOOK_CSV, type BookCsv } from '@/core/files/bookCsv';
import { readCsv, writeCsv } from '@/core/files/csv';
import { DRAFT_HEADS } from '@/core/files/draftsFile';
import { ENTRY_HEADS } from '@/core/files/entriesFile';
import { RECEIPT_HEADS } from '@/core/files/receiptsFile';
import { decimal } from '@/core/kernel/decimal';
import { minor, readMoney, total } from '@/core/kernel/money';
import { buildDemo } from '@/demo/buildDemo';
import { importReceipts } from '../payments/actions/importReceipts';
import { perform } from '../perform';
import { issueInvoice } from '../sales/actions/issueInvoice';
import { BookDb } from '../schema';
import { importAccounts, importDrafts, importJournals } from './actions/importBook';
import { bookCsv } from './queries/bookCsv';

async function textOf(db: BookDb, what: BookCsv): Promise<string> {
  let text = '';
  for await (const piece of bookCsv(db, what)) text += piece;
  return text;
}

async function rowsOf(db: BookDb, what: BookCsv, heads: readonly string[]) {
  const read = readCsv(await textOf(db, what), heads);
  if (!read.ok) throw new Error(JSON.stringify(read.refusals));
  return read.value.map(({ cells }) => cells);
}

const money = (text: string | undefined) => (text ? (readMoney(decimal(text), EUR) ?? minor(0n)) : minor(0n));

describe('the book as CSV', () => {
  let demo: BookDb;
  beforeAll(async () => {
    demo = new BookDb('csv-source');
    await buildDemo(demo, day('2026-11-23'));
  });

  test.each(BOOK_CSV)('%s are read again with as many cells in each row as heads', async (what) => {
    const [first = '', ...rest] = (await textOf(demo, what)).trimEnd().split('\r\n');
    const read = readCsv(await textOf(demo, what), first.split(','));
    expect(read.ok && read.value.length).toBe(rest.length);
    expect(rest.length).toBeGreaterThan(0);
  });
  test('entries come to the same debits and credits as the ledger, account by account', async () => {
    const rows = await rowsOf(demo, 'entries', ['account', 'debit', 'credit']);
    const lines = await demo.journalLines.toArray();
    expect(rows).toHaveLength(lines.length);
    const sums = new Map<string, bigint>();
    for (const { account = '', debit, credit } of rows)
      sums.set(account, (sums.get(account) ?? 0n) + money(debit) - money(credit));
    for (const { account, amount } of lines) sums.set(account, (sums.get(account) ?? 0n) - amount);
    expect([...sums.values()].every((sum) => sum === 0n)).toBe(true);
  });
  test('documents have a row for each line, credit notes counting down', async () => {
    const rows = await rowsOf(demo, 'documents', ['kind', 'number', 'document total']);
    const documents = await demo.documents.toArray();
    expect(rows).toHaveLength(documents.reduce((sum, { content }) => sum + content.lines.length, 0));
    expect(
      rows.filter(({ kind }) => kind === 'credit-note').every((row) => row['document total']?.startsWith('-')),
    ).toBe(true);
  });
  test('receipts say each thing that they settle', async () => {
    const rows = await rowsOf(demo, 'receipts', ['number', 'settles', 'settled']);
    const made = await demo.allocations
      .where('creditId')
      .anyOf(await demo.receipts.toCollection().primaryKeys())
      .toArray();
    expect(rows.filter(({ settles }) => settles !== '')).toHaveLength(made.length);
  });
});

describe('journals from a file', () => {
  const file = (rows: readonly (readonly string[])[]) => writeCsv(ENTRY_HEADS, rows);
  test('are posted, each with its sides', async () => {
    const db = await newBook();
    const text = file([
      ['1', '2026-01-31', 'Rent', '7930', '500.00', ''],
      ['1', '2026-01-31', 'Rent', '3000', '', '500.00'],
      ['2', '2026-02-28', 'Rent', '7930', '510', ''],
      ['2', '2026-02-28', 'Rent', '3000', '', '510'],
    ]);
    expect(await act(db, importJournals, { text }, '2026-03-01')).toBe(2);
    const lines = (await db.journalLines.toArray()).filter(({ account }) => account === '7930');
    expect(total(lines.map(({ amount }) => amount))).toBe(101_000n);
    await expectSoundBook(db);
  });
  test.each<[string, readonly (readonly string[])[], string]>([
    [
      'an account that there is none of',
      [
        ['1', '2026-01-31', 'Rent', '9999', '1', ''],
        ['1', '', '', '3000', '', '1'],
      ],
      'row 2, account',
    ],
    [
      'an amount that is none',
      [
        ['1', '2026-01-31', 'Rent', '7930', 'lots', ''],
        ['1', '', '', '3000', '', '1'],
      ],
      'row 2, debit',
    ],
    [
      'sides that differ',
      [
        ['1', '2026-01-31', 'Rent', '7930', '2', ''],
        ['1', '', '', '3000', '', '1'],
      ],
      'row 2',
    ],
    [
      'a day that is none',
      [
        ['1', 'soon', 'Rent', '7930', '1', ''],
        ['1', '', '', '3000', '', '1'],
      ],
      'row 2, date',
    ],
    ['nothing', [], ''],
  ])('are refused with %s, and none of them is posted', async (_, rows, path) => {
    const db = await newBook();
    const good = [
      ['0', '2026-01-31', 'Rent', '7930', '1', ''],
      ['0', '2026-01-31', 'Rent', '3000', '', '1'],
    ];
    const result = await perform(
      db,
      importJournals,
      { text: file(rows.length === 0 ? [] : [...rows, ...good]) },
      momentOn('2026-03-01'),
    );
    expect(result.ok ? [] : result.refusals.map((refusal) => refusal.path)).toContain(path);
    expect(await db.journal.count()).toBe(0);
  });
});

describe('documents from a file', () => {
  const file = (rows: readonly (readonly string[])[]) => writeCsv(DRAFT_HEADS, rows);
  const row = (document: string, over: Partial<Record<(typeof DRAFT_HEADS)[number], string>> = {}) => {
    const cells = {
      ...{ document, kind: 'invoice', customer: 'Clew Bay Salmon Co-op', date: '2026-02-10', due: '14d' },
      ...{ reference: 'PO 7', 'order number': '', description: 'Sensor', quantity: '2', unit: 'C62', price: '12.50' },
      ...{ discount: '', 'tax code': 'IE-S', account: '4000', ...over },
    };
    return DRAFT_HEADS.map((head) => cells[head]);
  };
  test('are drafts with their lines, which issue as if they had been typed', async () => {
    const db = await newBook();
    const text = file([row('A'), row('A', { description: 'Cable', price: '3' }), row('B', { kind: 'Quote' })]);
    expect(await act(db, importDrafts, { text }, '2026-02-10')).toBe(2);
    const drafts = await db.drafts.toArray();
    expect(drafts.map(({ kind, lines }) => [kind, lines.length]).sort()).toEqual([
      ['invoice', 2],
      ['quote', 1],
    ]);
    const invoice = drafts.find(({ kind }) => kind === 'invoice');
    const { id } = await act(db, issueInvoice, { draftId: invoice?.id ?? '' }, '2026-02-10');
    // 2 × 12.50 and 2 × 3.00 are 31.00, with 23 % 38.13.
    expect((await db.documents.get(id))?.figures.totals).toMatchObject({ net: 3_100n, payable: 3_813n });
    const typed = await issued(db, {
      customerId: 'clewbay',
      issueDate: '2026-02-11',
      lines: [lineOf({ quantity: '2', price: '12.50' }), lineOf({ quantity: '2', price: '3' })],
    });
    expect(typed.figures.totals.payable).toBe(3_813n);
  });
  test.each<[string, Parameters<typeof row>[1], string]>([
    ['a customer nobody knows', { customer: 'Nobody' }, 'row 2, customer'],
    ['a code of none', { 'tax code': 'XX' }, 'row 2, tax code'],
    ['an account of none', { account: '1' }, 'row 2, account'],
    ['a day that is none', { date: 'soon' }, 'row 2, date'],
    ['a kind that no draft has', { kind: 'credit note' }, 'row 2, kind'],
  ])('are refused with %s', async (_, over, path) => {
    const db = await newBook();
    const result = await perform(db, importDrafts, { text: file([row('A', over), row('B')]) }, momentOn('2026-02-10'));
    expect(result.ok ? [] : result.refusals.map((refusal) => refusal.path)).toEqual([path]);
    expect(await db.drafts.count()).toBe(0);
  });
});

describe('accounts from a file', () => {
  test('are added, and renamed where they are there; one code twice is refused', async () => {
    const db = await newBook();
    const text = 'code,name,type\r\n4150,Moorings,income\r\n4000,Sales of instruments,income\r\n';
    expect(await act(db, importAccounts, { text }, '2026-02-10')).toBe(2);
    expect((await db.accounts.get('4150'))?.type).toBe('income');
    expect((await db.accounts.get('4000'))?.name).toBe('Sales of instruments');
    const twice = 'code,name,type\r\n4160,A,income\r\n4160,B,income\r\n';
    const result = await perform(db, importAccounts, { text: twice }, momentOn('2026-02-10'));
    expect(result.ok ? [] : result.refusals).toMatchObject([{ code: 'duplicate', path: 'row 3, code' }]);
    expect(await db.accounts.get('4160')).toBeUndefined();
  });
});

describe('receipts from a file', () => {
  const file = (rows: readonly (readonly string[])[]) => writeCsv(RECEIPT_HEADS, rows);
  const DAY = '2026-02-20';

  async function bookOfTwo() {
    const db = await newBook();
    const one = await issued(db, { customerId: 'clewbay', lines: [lineOf({ price: '100' })] }, '2026-01-15');
    const two = await issued(db, { customerId: 'clewbay', lines: [lineOf({ price: '200' })] }, '2026-01-16');
    return { db, one, two };
  }

  test('settle what they name, one after the other, and leave the rest on account', async () => {
    const { db, one, two } = await bookOfTwo();
    const text = file([
      ['A', 'Clew Bay Salmon Co-op', '2026-02-18', 'x', 'EUR', one.number, '123.00'],
      ['A', 'Clew Bay Salmon Co-op', '2026-02-18', 'x', 'EUR', two.number, '46.00'],
      ['B', 'clewbay', '2026-02-19', '', '', two.number, '200.00'],
      ['C', 'clewbay', '2026-02-19', '', '', '', '10.00'],
    ]);
    const before = await wholeBook(db);
    expect(await importReceipts(db, text, momentOn(DAY), false)).toMatchObject({ ok: true, value: 3 });
    expect(await wholeBook(db)).toEqual(before);
    expect(await importReceipts(db, text, momentOn(DAY), true)).toMatchObject({ ok: true, value: 3 });
    expect((await db.documents.bulkGet([one.id, two.id])).map((document) => document?.open)).toEqual([0n, 0n]);
    expect((await db.receipts.toArray()).map(({ amount, open }) => [amount, open]).sort()).toEqual(
      [
        [16_900n, 0n],
        [20_000n, 0n],
        [1_000n, 1_000n],
      ].sort(),
    );
    await expectSoundBook(db);
  });
  test('more than is open, by two of them together, is refused at its row, and none is recorded', async () => {
    const { db, one } = await bookOfTwo();
    const before = await wholeBook(db);
    const text = file([
      ['A', 'clewbay', '2026-02-18', '', '', one.number, '100.00'],
      ['B', 'clewbay', '2026-02-19', '', '', one.number, '100.00'],
    ]);
    const result = await importReceipts(db, text, momentOn(DAY), true);
    expect(result.ok ? [] : result.refusals[0]?.path).toMatch(/^row 3, /);
    expect(await wholeBook(db)).toEqual(before);
  });
  test.each<[string, readonly string[], string]>([
    ['a customer nobody knows', ['A', 'Nobody', '2026-02-18', '', '', '', '1'], 'row 2, customer'],
    ['a document that is not open', ['A', 'clewbay', '2026-02-18', '', '', 'INV-9', '1'], 'row 2, settles'],
    ['a day that is none', ['A', 'clewbay', 'soon', '', '', '', '1'], 'row 2, date'],
    ['a currency that is none', ['A', 'clewbay', '2026-02-18', '', 'XXQ', '', '1'], 'row 2, currency'],
    ['an amount below zero', ['A', 'clewbay', '2026-02-18', '', '', '', '-1'], 'row 2, amount'],
  ])('are refused with %s', async (_, row, path) => {
    const { db } = await bookOfTwo();
    const result = await importReceipts(db, file([row]), momentOn(DAY), true);
    expect(result.ok ? [] : result.refusals.map((refusal) => refusal.path)).toEqual([path]);
  });
});
