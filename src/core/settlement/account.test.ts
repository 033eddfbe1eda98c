import { issued, lineOf, newBook } from 'tests/book';
import type { IssuedDocument } from '@/core/documents/issued';
import { currency } from '@/core/kernel/currency';
import { isoDate } from '@/core/kernel/date';
import { decimal } from '@/core/kernel/decimal';
import { minor } from '@/core/kernel/money';
import { type AccountRows, accountMoves, agedOf, ageHeads, ageOf, dueParts, openItemsOn, statementOf } from './account';
import type { Allocation } from './allocation';
import type { Receipt } from './receipt';

let plain: IssuedDocument;
beforeAll(async () => {
  plain = await issued(await newBook(), { lines: [lineOf({ price: '100.00' })] });
});

const day = isoDate;
const EUR = currency('EUR');

const invoice = (
  number: string,
  issueDate: string,
  due: string,
  over: Partial<IssuedDocument> = {},
): IssuedDocument => ({
  ...plain,
  id: number,
  number,
  issueDate: day(issueDate),
  dueDate: day(due),
  content: { ...plain.content, number, dueDate: day(due) },
  ...over,
});

const receipt = (number: string, date: string, amount: bigint, over: Partial<Receipt> = {}): Receipt =>
  ({
    id: number,
    number,
    customerId: plain.customerId,
    date: day(date),
    valueDate: day(date),
    reference: 'ref',
    amount: minor(amount),
    currency: EUR,
    dishonoured: null,
    ...over,
  }) as Receipt;

const allocation = (creditId: string, debtId: string, date: string, amount: bigint, over: Partial<Allocation> = {}) =>
  ({
    id: `${creditId}-${debtId}`,
    creditKind: 'receipt',
    creditId,
    debtId,
    debtNumber: debtId,
    date: day(date),
    currency: EUR,
    amount: minor(amount),
    undone: null,
    ...over,
  }) as Allocation;

const rows = (over: Partial<AccountRows>): AccountRows => ({
  documents: [],
  receipts: [],
  refunds: [],
  allocations: [],
  ...over,
});

test('a statement leads from what stood before to each balance', () => {
  const moves = accountMoves(
    rows({
      documents: [invoice('I1', '2026-01-05', '2026-02-04'), invoice('I2', '2026-02-10', '2026-03-12')],
      receipts: [
        receipt('R1', '2026-02-01', 10000n),
        receipt('R2', '2026-02-20', 5000n, {
          dishonoured: { on: day('2026-02-25'), at: '', reason: '', fee: minor(0n), entryIds: [] },
        }),
      ],
      allocations: [allocation('w', 'I2', '2026-03-01', 2300n, { creditKind: 'write-off' })],
    }),
    EUR,
  );
  const { opening, moves: within, closing } = statementOf(moves, day('2026-02-01'), day('2026-02-28'));
  // 123.00 stood before; 100.00 came, 123.00 was invoiced, 50.00 came and went back.
  expect([opening, closing]).toEqual([12300n, 14600n]);
  expect(within.map(({ event, number, balance }) => [event, number, balance])).toEqual([
    ['receipt', 'R1', 2300n],
    ['invoice', 'I2', 14600n],
    ['receipt', 'R2', 9600n],
    ['dishonoured', 'R2', 14600n],
  ]);
  expect(statementOf(moves, '', day('2026-12-31')).closing).toBe(12300n);
});

test('as at a day only what was settled by then counts, and a cheque from its own day', () => {
  const book = rows({
    documents: [invoice('I1', '2026-01-05', '2026-02-04'), invoice('I2', '2026-03-01', '2026-03-31')],
    receipts: [receipt('R1', '2026-02-01', 12300n, { valueDate: day('2026-02-15') })],
    allocations: [
      allocation('R1', 'I1', '2026-02-15', 12300n, {
        undone: { on: day('2026-02-20'), at: '', turn: 1, creditTurn: 1, entryIds: [] },
      }),
    ],
  });
  const on = (date: string) => openItemsOn(book, day(date)).map(({ number, open }) => [number, open]);
  expect(on('2026-01-04')).toEqual([]);
  expect(on('2026-02-14')).toEqual([['I1', 12300n]]);
  expect(on('2026-02-19')).toEqual([]);
  expect(on('2026-02-20')).toEqual([
    ['I1', 12300n],
    ['R1', -12300n],
  ]);
});

test('instalments are due each on their day; what is settled covers the earliest', () => {
  const instalments = [
    { percent: decimal('40'), due: day('2026-01-20') },
    { percent: decimal('60'), due: day('2026-02-28') },
  ];
  const document = { ...plain, content: { ...plain.content, instalments } };
  // 123.00 in 49.20 and 73.80.
  expect(dueParts(document, minor(12300n)).map(({ amount }) => amount)).toEqual([4920n, 7380n]);
  expect(dueParts(document, minor(8000n))).toEqual([
    { due: '2026-01-20', amount: 620n },
    { due: '2026-02-28', amount: 7380n },
  ]);
  expect(dueParts(document, minor(7000n))).toEqual([{ due: '2026-02-28', amount: 7000n }]);
});

describe('ages', () => {
  test.each([
    ['2026-03-31', 0],
    ['2026-03-30', 1],
    ['2026-03-01', 1],
    ['2026-02-28', 2],
    ['2025-12-31', 3],
    ['2025-12-30', 4],
  ])('what was due on %s stands in column %s on 31 March', (due, column) => {
    expect(ageOf(day(due), day('2026-03-31'), [30, 60, 90])).toBe(column);
  });
  test('add up to the balance, with what is held apart', () => {
    const items = openItemsOn(
      rows({
        documents: [invoice('I1', '2026-01-05', '2026-02-04'), invoice('I2', '2026-03-01', '2026-04-30')],
        receipts: [receipt('R1', '2026-02-01', 2300n)],
      }),
      day('2026-03-31'),
    );
    const { columns, held, balance } = agedOf(items, day('2026-03-31'));
    expect([columns, held, balance]).toEqual([[12300n, 0n, 12300n, 0n, 0n], -2300n, 22300n]);
    expect(ageHeads([30, 60, 90])).toEqual(['1–30', '31–60', '61–90', 'over 90']);
  });
});
