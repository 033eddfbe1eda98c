import fc from 'fast-check';
import { act, issued, lineOf, newBook } from 'tests/book';
import { made, rowsOf, shown } from 'tests/reports';
import { isoDate } from '@/core/kernel/date';
import { type Minor, minor, total } from '@/core/kernel/money';
import { buildDemo } from '@/demo/buildDemo';
import { recordReceipt } from '@/store/payments/actions/recordReceipt';
import { REPORTS } from '@/store/reports/catalogue';
import { glance } from '@/store/reports/glance';
import { expectedCashMaterial } from '@/store/reports/receivables';
import { BookDb } from '@/store/schema';
import { expectedBetween, payingHabits, weeksOf } from './expectedCash';

const day = isoDate;
const on = (from: string, until = from) => ({ from: day(from), until: day(until) });

/** Two invoices to one customer, 123.00 due on 14 February and 246.00 due on 14 March; the first is paid ten days late. */
async function bookOfDebts(): Promise<BookDb> {
  const db = await newBook();
  const first = await issued(db, { due: '30d', lines: [lineOf({ price: '100' })] }, '2026-01-15');
  await issued(db, { due: '30d', lines: [lineOf({ price: '200' })] }, '2026-02-12');
  const { customerId, content, id, number } = first;
  const amount = minor(12_300n);
  const parts = [{ method: 'bank', amount, charge: minor(0n) }] as const;
  const to = [{ documentId: id, number, money: amount }];
  const paid = { customerId, date: '2026-02-24', reference: '', currency: content.currency, parts, to };
  await act(db, recordReceipt, paid, '2026-02-24');
  return db;
}

describe('what is owed by age', () => {
  test('as at a day before a payment, by due date and by document date', async () => {
    const db = await bookOfDebts();
    // On 20 February the first is six days overdue, the second not yet due; by their dates they are 36 and 8 days old.
    const [byDue] = rowsOf(await made(db, 'aged-receivables', on('2026-02-20')));
    expect(byDue?.slice(1)).toEqual([24_600n, 12_300n, '', '', '', '', 36_900n]);
    const [byDate] = rowsOf(await made(db, 'aged-receivables', on('2026-02-20'), 'date'));
    expect(byDate?.slice(1)).toEqual(['', 24_600n, 12_300n, '', '', '', 36_900n]);
    const [after] = rowsOf(await made(db, 'aged-receivables', on('2026-02-28')));
    expect(after?.slice(1)).toEqual([24_600n, '', '', '', '', '', 24_600n]);
  });
  test('says so where nothing is', async () => {
    const report = await made(await newBook(), 'aged-receivables', on('2026-02-20'));
    expect(report.tables.map(({ nothing }) => nothing)).toEqual(['Nothing is receivable on this date.']);
    expect(report.chart).toBeUndefined();
  });
});

describe('the customer ledger', () => {
  test('brings forward, and has the balance after each move', async () => {
    const db = await bookOfDebts();
    const rows = rowsOf(await made(db, 'customer-ledger', on('2026-02-01', '2026-02-28')));
    expect(rows.map((cells) => cells.slice(1))).toEqual([
      ['2026-02-01', 'Brought forward', '', '', 12_300n],
      ['2026-02-12', 'Invoice INV-2026-0002', 24_600n, '', 36_900n],
      ['2026-02-24', 'Receipt REC-2026-0001', '', 12_300n, 24_600n],
    ]);
  });
});

describe('the general ledger', () => {
  test('of one account, forward and down', async () => {
    const db = await bookOfDebts();
    const { tables } = await made(db, 'general-ledger', on('2026-02-01', '2026-02-28'), '1100');
    expect(tables.map(({ caption }) => caption)).toEqual(['1100 Receivables']);
    expect(tables[0]?.rows.map(({ cells }) => cells.slice(2).map(shown))).toEqual([
      ['', '', 12_300n],
      [24_600n, '', 36_900n],
      ['', 12_300n, 24_600n],
    ]);
    expect(tables[0]?.sums?.map(shown)).toEqual(['', 'Carried forward', 24_600n, 12_300n, 24_600n]);
  });
});

describe('every report', () => {
  test('of the sample has a cell for each column, prints its sums, and is made of no book at all', async () => {
    const [demo, empty] = [new BookDb('all-reports'), await newBook()];
    await buildDemo(demo, day('2026-11-23'));
    for (const db of [demo, empty])
      for (const { name, choice } of REPORTS)
        for (const { value } of (await choice?.options(db)) ?? [{ value: undefined }]) {
          const { tables } = await made(db, name, on('2026-07-01', '2026-11-30'), value);
          for (const { caption, columns, rows, sums } of tables) {
            const widths = [...rows.map(({ cells }) => cells.length), ...(sums === null ? [] : [sums.length])];
            expect([name, caption, ...new Set(widths)].slice(0, 4)).toEqual(
              widths.length === 0 ? [name, caption] : [name, caption, columns.length],
            );
            expect([name, caption, new Set(rows.map(({ key }) => key)).size]).toEqual([name, caption, rows.length]);
          }
        }
  });
});

describe('at a glance', () => {
  test('what is owed, expected, to be paid, earned and received', async () => {
    const db = await bookOfDebts();
    // 246.00 is due on 14 March and expected ten days later; two months come to 300.00 net, 69.00 of tax.
    expect(await glance(db, day('2026-03-20'))).toEqual({
      ...{ owed: 24_600n, overdue: 24_600n, oldest: 6, expected: 24_600n, late: 0n },
      ...{ income: 0n, received: 0n },
      authorities: [{ name: expect.any(String), toPay: 0n, unfiled: 6_900n }],
    });
    expect(await glance(db, day('2026-02-24'))).toMatchObject({ income: 20_000n, received: 12_300n, overdue: 0n });
  });
});

describe('expected cash', () => {
  test('comes as late as the customer usually pays', async () => {
    const db = await bookOfDebts();
    // Ten days late the one time it paid: what is due on 14 March is expected on the 24th, in the week from Monday the 23rd.
    const material = await expectedCashMaterial(db, day('2026-03-04'));
    expect(material.parts.map(({ due, on, cash }) => [due, on, cash])).toEqual([['2026-03-14', '2026-03-24', 24_600n]]);
    const report = await made(db, 'expected-cash', on('2026-03-04'));
    expect(rowsOf(report).filter(([, , cash]) => cash !== '')).toEqual([['23 Mar to 29 Mar', '1', 24_600n, '']]);
    expect(expectedBetween(material.parts, day('2026-03-04'), day('2026-03-23'))).toBe(0n);
    expect(expectedBetween(material.parts, day('2026-03-04'), day('2026-03-31'))).toBe(24_600n);
  });
  test('that should have come before stands by itself', async () => {
    const db = await bookOfDebts();
    const report = await made(db, 'expected-cash', on('2026-04-01'));
    expect(rowsOf(report).filter(([, , cash]) => cash !== '')).toEqual([['Later than usual', '1', 24_600n, '']]);
  });
  test.each([
    // Days late, and their median: the mean of the two in the middle, rounded down.
    [[10], 10],
    [[0, 10], 5],
    [[-3, 4], 0],
    [[-4, -1], -3],
    [[30, 2, 5], 5],
    [[1, 100, 2, 3], 2],
  ])('of %j days late the habit is %i', (late, habit) => {
    const due = day('2026-03-01');
    const settled = late.map((days) => ({
      customerId: 'one',
      due,
      on: day(new Date(Date.UTC(2026, 2, 1 + days)).toISOString().slice(0, 10)),
    }));
    expect(payingHabits(settled).get('one')).toBe(habit);
  });
  test('weeks hold all of it, whatever the days', async () => {
    const db = await bookOfDebts();
    const [part] = (await expectedCashMaterial(db, day('2026-03-04'))).parts;
    if (part === undefined) throw new Error('an invoice is open');
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 20 }),
        fc.array(fc.tuple(fc.integer({ min: -60, max: 300 }), fc.bigInt(1n, 10n ** 9n))),
        (offset, parts) => {
          const on = day(new Date(Date.UTC(2026, 2, 1 + offset)).toISOString().slice(0, 10));
          const expected = parts.map(([days, cash]) => ({
            ...part,
            on: day(new Date(Date.UTC(2026, 2, 1 + offset + days)).toISOString().slice(0, 10)),
            cash: cash as Minor,
          }));
          const weeks = weeksOf({ on, parts: expected });
          expect(total(weeks.map(({ cash }) => cash))).toBe(total(expected.map(({ cash }) => cash)));
          expect(weeks[0]?.cash).toBe(total(expected.filter((one) => one.on < on).map(({ cash }) => cash)));
        },
      ),
    );
  });
});
