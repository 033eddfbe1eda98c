import fc from 'fast-check';
import { act, discountOf, issued, lineOf, newBook } from 'tests/book';
import { made, rowsOf, shown, YEAR } from 'tests/reports';
import { filledForm } from '@/core/decisions/tax/fileReturn';
import { isoDate } from '@/core/kernel/date';
import { minor, total } from '@/core/kernel/money';
import { FIRST_CHART } from '@/core/ledger/account';
import type { JournalLine } from '@/core/ledger/entry';
import { writeJournal } from '@/store/ledger/actions/writeJournal';
import { present } from '@/store/load';
import { recordReceipt } from '@/store/payments/actions/recordReceipt';
import type { BookDb } from '@/store/schema';
import { entriesBehindAll, periodReturn } from '@/store/tax/queries/periods';
import { bridgeSteps } from './incomeCash';
import { stepSpans } from './report';
import { returnReport } from './returnReport';
import { spanBefore } from './span';

/** 1,000.00 in January, 400.00 in March, 23 % each; 615.00 paid in February with 5.00 kept by the bank. */
async function bookOfSales(): Promise<BookDb> {
  const db = await newBook();
  const first = await issued(db, { salesperson: 'Aoife', lines: [lineOf({ price: '1000' })] }, '2026-01-15');
  await issued(
    db,
    { customerId: 'clewbay', tags: ['buoys', 'repair'], lines: [lineOf({ price: '400' })] },
    '2026-03-10',
  );
  const parts = [{ method: 'bank', amount: minor(61_500n), charge: minor(500n) }] as const;
  const to = [{ documentId: first.id, number: first.number, money: minor(61_500n) }];
  const { customerId, content } = first;
  await act(
    db,
    recordReceipt,
    { customerId, date: '2026-02-10', reference: '', currency: content.currency, parts, to },
    '2026-02-10',
  );
  return db;
}

describe('the time before', () => {
  test.each([
    ['2026-04-01', '2026-06-30', '2026-01-01', '2026-03-31'],
    ['2026-02-01', '2026-02-28', '2026-01-01', '2026-01-31'],
    ['2024-01-01', '2024-12-31', '2023-01-01', '2023-12-31'],
    ['2026-03-05', '2026-03-14', '2026-02-23', '2026-03-04'],
  ])('%s to %s comes after %s to %s', (from, until, first, last) =>
    expect(spanBefore({ from: isoDate(from), until: isoDate(until) })).toEqual({ from: first, until: last }),
  );
});

describe('statements', () => {
  test('say what was earned and spent, compared with the time before', async () => {
    const db = await bookOfSales();
    const quarter = { from: isoDate('2026-02-01'), until: isoDate('2026-03-31') };
    const report = await made(db, 'income-statement', quarter);
    // 400.00 in March after 1,000.00 in January; the bank kept 5.00 in February.
    expect(rowsOf(report, 0)).toEqual([[expect.stringMatching(/^4/), 40_000n, 100_000n]]);
    expect(rowsOf(report, 1)).toEqual([[expect.stringMatching(/Bank charges/), 500n, 0n]]);
    expect(rowsOf(report, 2)).toEqual([['Income less expenses', 39_500n, 100_000n]]);
  });
  test('are equal on both sides: what there is, what is owed, and the result', async () => {
    const db = await bookOfSales();
    const report = await made(db, 'balance-sheet', { from: isoDate('2026-03-31'), until: isoDate('2026-03-31') });
    // Bank 610.00, receivables 1,722.00 − 615.00; output tax 322.00; result 1,400.00 − 5.00.
    expect(rowsOf(report, 0).map(([, amount]) => amount)).toEqual([61_000n, 110_700n]);
    expect(rowsOf(report, 1).map(([, amount]) => amount)).toEqual([32_200n]);
    expect(rowsOf(report, 3)).toEqual([['Result not yet carried to equity', 139_500n]]);
    expect(rowsOf(report, 4)).toEqual([['Total', 171_700n]]);
    expect(report.notes).toEqual([]);
  });
  test('of one tag hold its documents alone, and say so', async () => {
    const db = await bookOfSales();
    const income = await made(db, 'income-statement', YEAR, 'buoys');
    expect(rowsOf(income, 0)).toEqual([[expect.stringMatching(/^4/), 40_000n, 0n]]);
    expect(rowsOf(income, 2)).toEqual([['Income less expenses', 40_000n, 0n]]);
    const sheet = await made(db, 'balance-sheet', YEAR, 'buoys');
    // Receivables 492.00; output tax 92.00; result 400.00: the other document and its receipt are not in it.
    expect(rowsOf(sheet, 0).map(([, amount]) => amount)).toEqual([49_200n]);
    expect(rowsOf(sheet, 1).map(([, amount]) => amount)).toEqual([9_200n]);
    expect(rowsOf(sheet, 3)).toEqual([['Result not yet carried to equity', 40_000n]]);
    expect(rowsOf(sheet, 4)).toEqual([['Total', 49_200n]]);
    for (const report of [income, sheet]) {
      expect(report.title).toMatch(/tagged “buoys”$/);
      expect(report.notes).toEqual([expect.stringContaining('money that was received for them is not in it')]);
    }
  });
  test('begin in the middle of a month with what stood then', async () => {
    const db = await bookOfSales();
    const report = await made(db, 'trial-balance', { from: isoDate('2026-02-05'), until: isoDate('2026-02-20') });
    expect(rowsOf(report).find(([account]) => account === '1100 Receivables')).toEqual([
      '1100 Receivables',
      123_000n,
      -61_500n,
      61_500n,
      '',
    ]);
  });
});

describe('sales', () => {
  test('by customer, with their share and the time before', async () => {
    const db = await bookOfSales();
    const report = await made(db, 'sales-by-customer');
    // 1,000.00 and 400.00 of 1,400.00: 71.4 and 28.6 percent.
    expect(rowsOf(report).map((cells) => cells.slice(1))).toEqual([
      [100_000n, 23_000n, '71.4 %', 0n, 100_000n],
      [40_000n, 9_200n, '28.6 %', 0n, 40_000n],
    ]);
    const march = await made(db, 'sales-by-customer', { from: isoDate('2026-03-01'), until: isoDate('2026-03-31') });
    expect(march.tables[0]?.sums?.map(shown)).toEqual(['Total', 40_000n, 9_200n, '100.0 %', 0n, 40_000n]);
  });
  test('by salesperson and tag; of several tags a document counts for each, so that no sum is given', async () => {
    const db = await bookOfSales();
    expect(rowsOf(await made(db, 'sales-by-salesperson')).map(([name, net]) => [name, net])).toEqual([
      ['Aoife', 100_000n],
      ['no salesperson', 40_000n],
    ]);
    const tags = await made(db, 'sales-by-tag');
    expect(rowsOf(tags).map(([name, net]) => [name, net])).toEqual([
      ['no tag', 100_000n],
      ['buoys', 40_000n],
      ['repair', 40_000n],
    ]);
    expect(tags.tables[0]?.sums).toBeNull();
  });
  test('by item, with the tax of a code shared over its lines and what is off the whole document apart', async () => {
    const db = await newBook();
    const lines = [lineOf({ id: 'a', price: '100', itemId: 'gauge' }), lineOf({ id: 'b', price: '50', itemId: '' })];
    await issued(db, { lines, adjustments: [discountOf('10%')] }, '2026-01-15');
    const report = await made(db, 'sales-by-item');
    // 150.00 less 15.00 is 135.00; 23 % of it 31.05, shared by 100 : 50 : 15.
    const all = rowsOf(report);
    expect(all.map(([, net]) => net)).toEqual([10_000n, 5_000n, -1_500n]);
    expect(total(all.map(([, , tax]) => tax as never))).toBe(3_105n);
    expect(all.map(([name]) => name)).toContain('Discounts and charges on whole documents');
  });
  test('by jurisdiction, each with its base and its tax', async () => {
    const db = await bookOfSales();
    expect(rowsOf(await made(db, 'sales-by-jurisdiction')).map(([name, net, tax]) => [name, net, tax])).toEqual([
      ['Ireland', 140_000n, 32_200n],
    ]);
  });
});

describe('income against cash', () => {
  test('leads from what was earned to what was paid, step by step', async () => {
    const db = await bookOfSales();
    await act(
      db,
      writeJournal,
      {
        date: '2026-02-01',
        text: 'Interest',
        sides: [
          { account: '1000', amount: minor(1_000n) },
          { account: '4300', amount: minor(-1_000n) },
        ],
      } as never,
      '2026-02-01',
    );
    const report = await made(db, 'income-against-cash', { from: isoDate('2026-02-01'), until: isoDate('2026-03-31') });
    // 400.00 billed and 10.00 of interest; 92.00 of tax; 1,230.00 was owed, 1,107.00 is; 5.00 stayed with the bank.
    expect(rowsOf(report)).toEqual([
      ['Income', 41_000n],
      ['Of which not billed to customers', -1_000n],
      ['Tax on what was billed', 9_200n],
      ['Bank charges', -500n],
      ['Owed by customers at the beginning', 123_000n],
      ['Owed by customers at the end', -110_700n],
    ]);
    // 400.00 + 92.00 − 5.00 + 1,230.00 − 1,107.00.
    expect(report.tables[0]?.sums?.map(shown)).toEqual(['Received from customers', 61_000n]);
    expect(report.notes).toEqual([]);
  });
  test('comes to what was paid, whatever accounts the entries name', () => {
    const codes = [...FIRST_CHART.map(({ code }) => code), '9999'];
    const entry = fc
      .array(fc.record({ account: fc.constantFrom(...codes), amount: fc.bigInt({ min: -9999n, max: 9999n }) }), {
        minLength: 1,
        maxLength: 5,
      })
      .map((sides) => [...sides, { account: '1100', amount: -sides.reduce((sum, { amount }) => sum + amount, 0n) }]);
    const money = new Set(['1000', '1010', '1020']);
    fc.assert(
      fc.property(fc.array(entry, { maxLength: 6 }), fc.bigInt(), fc.bigInt(), (entries, opening, income) => {
        const lines = entries.flat().map((side) => ({ ...side, amount: minor(side.amount) }) as JournalLine);
        const { steps, cash } = bridgeSteps({
          ...YEAR,
          home: 'EUR' as never,
          chart: FIRST_CHART,
          money,
          tax: new Set(['2200']),
          opening: minor(opening),
          lines,
          income: minor(income),
        });
        expect(total(steps.map(({ amount }) => amount))).toBe(cash);
        expect(cash).toBe(total(lines.filter(({ account }) => money.has(account)).map(({ amount }) => amount)));
      }),
    );
  });
});

test('a return on paper says the same by box, code, jurisdiction and document', async () => {
  const db = await bookOfSales();
  const registration = present(await db.registrations.get('ie-vat'), 'the registration');
  const { figures } = await periodReturn(db, registration, isoDate('2026-01-01'));
  const typed = [{ box: 'T2', amount: minor(3_000n), words: 'purchase ledger', account: '' }];
  const report = returnReport({
    ...YEAR,
    registration,
    home: registration.filingCurrency,
    figures,
    stated: filledForm(registration, figures, typed)?.stated ?? null,
    typed,
    entries: await entriesBehindAll(db, figures.rows),
  });
  const [boxes, codes, places, documents] = report.tables;
  expect(rowsOf(report)[1]).toEqual(['T2', 'VAT on purchases; typed: purchase ledger', 3_000n]);
  // 230.00 less 30.00.
  expect(boxes?.sums?.map(shown).at(-1)).toBe(20_000n);
  expect(codes?.sums?.map(shown)).toEqual(['Total', '', 100_000n, 23_000n]);
  expect(places?.rows[0]?.cells.map(shown)).toEqual(['Ireland', 100_000n, 0n, 0n, 23_000n]);
  expect(documents?.sums?.map(shown).at(-1)).toBe(23_000n);
});

describe('charts', () => {
  test('steps begin where the one before ended, and the last is their sum', () => {
    expect(stepSpans([100n, -30n, 50n, 120n].map(minor))).toEqual([
      [0n, 100n],
      [100n, 70n],
      [70n, 120n],
      [0n, 120n],
    ]);
  });
  test('show what stands in the tables', async () => {
    const db = await bookOfSales();
    const sales = await made(db, 'sales-by-customer');
    expect(sales.chart?.series[0]?.amounts).toEqual(rowsOf(sales).map(([, net]) => net));
    const bridge = await made(db, 'income-against-cash');
    const [amounts = []] = bridge.chart?.series.map((one) => one.amounts) ?? [];
    expect(amounts.at(-1)).toBe(total(amounts.slice(0, -1)));
    const tax = await made(db, 'output-tax');
    expect(tax.chart?.names).toEqual(['Jan–Feb 2026', 'Mar–Apr 2026']);
    expect(tax.chart?.series.map((one) => one.amounts)).toEqual([[23_000n, 9_200n]]);
    expect((await made(await newBook(), 'sales-by-customer')).chart).toBeUndefined();
  });
});

describe('tax lists', () => {
  test('output tax stands by period and code', async () => {
    const db = await bookOfSales();
    expect(rowsOf(await made(db, 'output-tax')).map((cells) => [cells[0], cells[3], cells[4], cells[5]])).toEqual([
      ['Jan–Feb 2026', '23 %', 100_000n, 23_000n],
      ['Mar–Apr 2026', '23 %', 40_000n, 9_200n],
    ]);
  });
  test('nothing to list says so', async () => {
    const db = await newBook();
    for (const name of ['recapitulative-list', 'exempt-sales', 'output-tax', 'income-against-cash', 'sales-by-item']) {
      const report = await made(db, name);
      expect(report.tables[0]?.nothing).not.toBe('');
      expect(report.notes).toEqual([]);
    }
  });
});
