import fc from 'fast-check';
import { act, newBook } from 'tests/book';
import { made, rowsOf, shown } from 'tests/reports';
import { addDays, isoDate } from '@/core/kernel/date';
import { type Minor, minor, total } from '@/core/kernel/money';
import { writeJournal } from '@/store/ledger/actions/writeJournal';
import type { BookDb } from '@/store/schema';
import type { Report } from './report';
import type { ReportSpan } from './span';

/* Statements are views of the same lines: whatever was posted, they say the same of it. */

/** Accounts of the first chart that a journal may post to: money, a cost, a sale, a debt of ours. */
const POSTED = ['1000', '7930', '4300', '3000'] as const;

const FIRST = isoDate('2026-01-01');
const dayArb = fc.nat({ max: 180 }).map((days) => addDays(FIRST, days));

/** Journals that balance: one amount from an account to another. */
const journalsArb = fc.array(
  fc.record({
    date: dayArb,
    from: fc.constantFrom(...POSTED),
    to: fc.constantFrom(...POSTED),
    cents: fc.integer({ min: 1, max: 10_000_000 }),
  }),
  { minLength: 1, maxLength: 12 },
);

/** Two days in their order. */
const spanArb = fc
  .tuple(dayArb, dayArb)
  .map(([a, b]): ReportSpan => (a < b ? { from: a, until: b } : { from: b, until: a }));

type Posted = { readonly date: string; readonly from: string; readonly to: string; readonly cents: number };

async function bookOf(journals: readonly Posted[]): Promise<BookDb> {
  const db = await newBook();
  for (const { date, from, to, cents } of journals) {
    if (from === to) continue;
    const sides = [
      { account: to, amount: minor(BigInt(cents)) },
      { account: from, amount: minor(BigInt(-cents)) },
    ];
    await act(db, writeJournal, { date, text: `${from} to ${to}`, sides } as never, '2026-07-31');
  }
  return db;
}

const amountOf = (cell: string | Minor | undefined): bigint => (typeof cell === 'bigint' ? cell : 0n);
const code = (words: string | Minor | undefined): string => String(words).slice(0, 4);

/** Debits less credits of an account at the end, by the trial balance. */
function closings(trial: Report): ReadonlyMap<string, bigint> {
  return new Map(rowsOf(trial).map((cells) => [code(cells[0]), amountOf(cells[3]) - amountOf(cells[4])]));
}

const resultOf = (report: Report): bigint =>
  amountOf(
    rowsOf(
      report,
      report.tables.findIndex(({ caption }) => caption === 'Result'),
    )[0]?.[1],
  );

const property = (check: (db: BookDb, journals: readonly Posted[], span: ReportSpan) => Promise<void>, numRuns = 8) =>
  fc.assert(
    fc.asyncProperty(journalsArb, spanArb, async (journals, span) => {
      await check(await bookOf(journals), journals, span);
    }),
    { numRuns },
  );

test('each account of the trial balance closes with what was put there, and both sides of all are equal', () =>
  property(async (db, journals, span) => {
    const trial = await made(db, 'trial-balance', span);
    const expected = new Map<string, bigint>();
    for (const { date, from, to, cents } of journals) {
      if (date > span.until || from === to) continue;
      expected.set(to, (expected.get(to) ?? 0n) + BigInt(cents));
      expected.set(from, (expected.get(from) ?? 0n) - BigInt(cents));
    }
    const found = closings(trial);
    for (const account of POSTED)
      expect([account, found.get(account) ?? 0n]).toEqual([account, expected.get(account) ?? 0n]);
    const sums = trial.tables[0]?.sums?.map(shown) ?? [];
    expect(amountOf(sums[3])).toBe(amountOf(sums[4]));
    expect(amountOf(sums[1]) + amountOf(sums[2])).toBe(0n);
  }));

test('the general ledger carries forward what the trial balance closes with, line after line', () =>
  property(async (db, _, span) => {
    const found = closings(await made(db, 'trial-balance', span));
    for (const { caption, rows, sums } of (await made(db, 'general-ledger', span)).tables) {
      const balances = rows.map(({ cells }) => amountOf(shown(cells.at(-1) ?? '')));
      const moved = rows.map(({ cells }) => amountOf(shown(cells[2] ?? '')) - amountOf(shown(cells[3] ?? '')));
      // Each balance is the one before it and what this line moved.
      for (let i = 1; i < balances.length; i++) expect(balances[i]).toBe((balances[i - 1] ?? 0n) + (moved[i] ?? 0n));
      expect([caption, amountOf(shown(sums?.at(-1) ?? ''))]).toEqual([caption, found.get(code(caption)) ?? 0n]);
    }
  }));

test('the balance sheet is equal on both sides, and its result grows by that of the income statement', () =>
  property(async (db, _, span) => {
    const before = await made(db, 'balance-sheet', { from: FIRST, until: addDays(span.from, -1) });
    const after = await made(db, 'balance-sheet', { from: FIRST, until: span.until });
    const income = await made(db, 'income-statement', span);
    expect(resultOf(after) - resultOf(before)).toBe(resultOf(income));
    const assets = amountOf(shown(after.tables[0]?.sums?.[1] ?? ''));
    expect(amountOf(rowsOf(after, after.tables.length - 1)[0]?.[1])).toBe(assets);
    expect(after.notes).toEqual([]);
  }));

test('the income statement of two spans, one behind the other, is that of both together', () =>
  property(async (db, _, { from, until }) => {
    const middle = addDays(from, 20);
    if (middle >= until) return;
    const whole = resultOf(await made(db, 'income-statement', { from, until }));
    const parts = [
      resultOf(await made(db, 'income-statement', { from, until: middle })),
      resultOf(await made(db, 'income-statement', { from: addDays(middle, 1), until })),
    ];
    expect(total(parts as Minor[])).toBe(whole);
  }));
