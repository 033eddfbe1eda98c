import fc from 'fast-check';
import { act, issued, lineOf, newBook } from 'tests/book';
import { exchangeRateId } from '@/core/currency/exchangeRate';
import { currency } from '@/core/kernel/currency';
import { isoDate } from '@/core/kernel/date';
import { decimal } from '@/core/kernel/decimal';
import { minor, negated, total } from '@/core/kernel/money';
import { revalueOpenItems } from '@/store/ledger/actions/revalue';
import { writeJournal } from '@/store/ledger/actions/writeJournal';
import { exchangeMaterial } from '@/store/ledger/queries/exchangeDifferences';
import { undoAllocation } from '@/store/payments/actions/allocate';
import { recordReceipt } from '@/store/payments/actions/recordReceipt';
import type { BookDb } from '@/store/schema';
import { keepExchangeRate } from '@/store/setup/actions/taxSetup';
import { exchangeReport } from './exchangeDifferences';
import { plainTable, type Report } from './report';

const USD = currency('USD');

async function rate(db: BookDb, date: string, perHome: string): Promise<void> {
  const value = { currency: USD, date: isoDate(date), perHome: decimal(perHome), source: 'test' };
  await act(db, keepExchangeRate, { value: { ...value, id: exchangeRateId('USD', value.date) }, isNew: true }, date);
}

/** An invoice of 1,230.00 USD that stood at 984.00, half of it settled for 520.00. */
async function settledBook(): Promise<BookDb> {
  const db = await newBook();
  await rate(db, '2026-01-01', '1.25');
  await rate(db, '2026-01-31', '1.20');
  const { id, number, customerId } = await issued(db, { currency: 'USD', lines: [lineOf({ price: '1000' })] });
  await act(db, revalueOpenItems, { date: '2026-01-31' }, '2026-02-01');
  const parts = [{ method: 'bank', amount: minor(61_500n), home: minor(52_000n) }] as const;
  const to = [{ documentId: id, number, money: minor(61_500n) }];
  await act(
    db,
    recordReceipt,
    { customerId, date: '2026-02-10', reference: '', currency: USD, parts, to },
    '2026-02-10',
  );
  return db;
}

const reportOf = async (db: BookDb, from: string, until: string): Promise<Report> =>
  exchangeReport(await exchangeMaterial(db, isoDate(from), isoDate(until)));

const rowsOf = ({ tables, currency: home }: Report, caption: string): readonly (readonly string[])[] => {
  const table = tables.find((one) => one.caption.startsWith(caption));
  return table === undefined ? [] : plainTable(table, home).rows;
};

describe('exchange differences', () => {
  test('are told with their workings, settlement by settlement and item by item', async () => {
    const report = await reportOf(await settledBook(), '2026-01-01', '2026-03-31');
    expect(rowsOf(report, 'Realised')).toEqual([
      // 492.00 of 984.00 went; 520.00 came: 28.00 gained. 615.00 ÷ 520.00 = 1.182692.
      [
        '2026-02-10',
        'REC-2026-0001 on INV-2026-0001',
        '615.00',
        'USD',
        '492.00',
        '520.00',
        '1.25 → 1.182692 USD for 1 EUR',
        '28.00',
      ],
      ['', '', '', '', '', '', '', '28.00'],
    ]);
    // 1,230.00 ÷ 1.20 = 1,025.00, 41.00 above 984.00; taken back on 1 February.
    expect(rowsOf(report, 'Unrealised')).toEqual([
      ['USD', '-41.00', '41.00', '0.00'],
      ['', '', '', '0.00'],
    ]);
    expect(rowsOf(report, 'Open items as at 31 Jan 2026')[0]?.slice(2)).toEqual([
      '1230.00',
      'USD',
      '1,230.00 ÷ 1.2 of 31 Jan 2026',
      '1025.00',
      '984.00',
      '41.00',
    ]);
    expect(report.notes).toEqual([]);
  });

  test('that were taken back stand below those they take back; a journal is named for what it is', async () => {
    const db = await settledBook();
    const [made] = await db.allocations.toArray();
    const input = { creditId: made?.creditId ?? '', debtId: made?.debtId ?? '', date: '2026-02-20' };
    await act(db, undoAllocation, input, '2026-02-20');
    const sides = [
      { account: '7925', amount: minor(500n) },
      { account: '3000', amount: minor(-500n) },
    ];
    await act(db, writeJournal, { date: '2026-02-21', text: 'Typed', sides }, '2026-02-21');
    const report = await reportOf(db, '2026-02-01', '2026-02-28');
    expect(rowsOf(report, 'Realised').map((cells) => [cells[1], cells.at(-1)])).toEqual([
      ['REC-2026-0001 on INV-2026-0001', '28.00'],
      ['REC-2026-0001 on INV-2026-0001, undone', '-28.00'],
      ['', '0.00'],
    ]);
    expect(rowsOf(report, 'Unrealised')).toEqual([
      ['USD', '-41.00', '0.00', '-41.00'],
      ['Typed', '', '', '-5.00'],
      ['', '', '', '-46.00'],
    ]);
    expect(report.notes).toEqual([expect.stringContaining('−5.00 EUR')]);
  });

  test('of any days add up to what the two accounts were moved by', async () => {
    const db = await settledBook();
    const all = await db.journalLines.toArray();
    const anyDay = fc
      .integer({ min: 0, max: 80 })
      .map((n) => new Date(Date.UTC(2026, 0, 1 + n)).toISOString().slice(0, 10));
    await fc.assert(
      fc.asyncProperty(anyDay, anyDay, async (one, other) => {
        const [from = '', until = ''] = [one, other].sort();
        const { tables } = await reportOf(db, from, until);
        for (const [caption, account] of [
          ['Realised', '7920'],
          ['Unrealised, by currency', '7925'],
        ]) {
          const moved = total(
            all.flatMap((line) =>
              line.account === account && line.date >= from && line.date <= until ? [line.amount] : [],
            ),
          );
          const table = tables.find((each) => each.caption === caption);
          const last = (cells: readonly unknown[]) => (cells.at(-1) as { amount: ReturnType<typeof minor> }).amount;
          expect(total((table?.rows ?? []).map(({ cells }) => last(cells)))).toBe(negated(moved));
          expect(last(table?.sums ?? [])).toBe(negated(moved));
        }
      }),
      { numRuns: 30 },
    );
  });
});
