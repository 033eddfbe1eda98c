import { act, draftOf, EUR, issued, lineOf, momentOn, newBook } from 'tests/book';
import { expectSoundBook } from 'tests/soundBook';
import { isoDate } from '@/core/kernel/date';
import { minor } from '@/core/kernel/money';
import { fiscalYearOf, yearName } from '@/core/ledger/fiscalYear';
import { wordRefusals } from '@/core/wording/refusals';
import { writeJournal } from '@/store/ledger/actions/writeJournal';
import { closeFiscalYear, keepLedgerDays, reopenFiscalYear } from '@/store/ledger/actions/years';
import { fiscalYears } from '@/store/ledger/queries/years';
import { recordReceipt } from '@/store/payments/actions/recordReceipt';
import { type Action, perform } from '@/store/perform';
import { reportKind } from '@/store/reports/catalogue';
import { keepDraft } from '@/store/sales/actions/drafts';
import { issueInvoice } from '@/store/sales/actions/issueInvoice';
import type { BookDb } from '@/store/schema';

const NEXT_YEAR = '2027-01-10';

/** 1,000.00 sold in 2026, 250.00 spent, and 400.00 sold in 2027. */
async function twoYears(): Promise<BookDb> {
  const db = await newBook();
  await issued(db, { lines: [lineOf({ price: '1000', account: '4000' })] }, '2026-06-15');
  const sides = [
    { account: '7900', amount: 25_000n },
    { account: '1000', amount: -25_000n },
  ];
  await act(db, writeJournal, { date: '2026-12-31', text: 'Insurance', sides } as never, '2026-12-31');
  await issued(db, { lines: [lineOf({ price: '400', account: '4000' })] }, '2027-01-05');
  return db;
}

const balances = async (db: BookDb, until: string) => {
  const sums: Record<string, bigint> = {};
  for (const { account, date, amount } of await db.journalLines.toArray())
    if (date <= until) sums[account] = (sums[account] ?? 0n) + amount;
  return sums;
};

async function refused<I, V>(db: BookDb, action: Action<I, V>, input: I, day = NEXT_YEAR): Promise<string> {
  const result = await perform(db, action, input, momentOn(day));
  return result.ok ? '' : wordRefusals(result.refusals);
}

describe('fiscal years', () => {
  test.each([
    ['2026-03-31', 1, '2026-01-01', '2026-12-31', '2026'],
    ['2026-03-31', 4, '2025-04-01', '2026-03-31', '2025/26'],
    ['2026-04-01', 4, '2026-04-01', '2027-03-31', '2026/27'],
    ['2028-02-29', 3, '2027-03-01', '2028-02-29', '2027/28'],
  ])('%s lies, with years from month %i, in %s to %s, %s', (day, month, start, end, name) => {
    const year = fiscalYearOf(isoDate(day), month);
    expect([year.start, year.end, yearName(year)]).toEqual([start, end, name]);
  });
});

describe('closing a year', () => {
  test('carries what was earned to retained earnings, and leaves the statements of the year as they were', async () => {
    const db = await twoYears();
    const statement = () =>
      reportKind('income-statement')?.make(db, { from: isoDate('2026-01-01'), until: isoDate('2026-12-31') });
    const before = await statement();
    await act(db, closeFiscalYear, { end: '2026-12-31' }, NEXT_YEAR);
    // 1,000.00 less 250.00.
    expect(await balances(db, '2026-12-31')).toMatchObject({ 4000: 0n, 7900: 0n, 3800: -75_000n });
    expect(await statement()).toEqual(before);
    const sheet = await reportKind('balance-sheet')?.make(db, {
      from: isoDate('2027-01-10'),
      until: isoDate('2027-01-10'),
    });
    const [, , equity, result] = sheet?.tables ?? [];
    expect(equity?.rows.map(({ cells }) => cells[0])).toEqual(['3800 Retained earnings']);
    // What was sold in the new year.
    expect(result?.rows[0]?.cells[1]).toMatchObject({ amount: 40_000n });
    expect((await fiscalYears(db)).next).toEqual({ start: '2027-01-01', end: '2027-12-31' });
    await expectSoundBook(db);
  });

  test('locks its days for all that posts, whoever posts it; drafts may still be kept', async () => {
    const db = await twoYears();
    await act(db, closeFiscalYear, { end: '2026-12-31' }, NEXT_YEAR);
    const [first] = await db.documents.orderBy('[issueDate+number]').toArray();
    const money = {
      customerId: first?.customerId ?? '',
      date: '2026-12-30',
      reference: '',
      currency: EUR,
      parts: [{ method: 'bank', amount: minor(100n) }],
      to: [],
    } as const;
    expect(await refused(db, recordReceipt, money)).toMatch(
      /Nothing is posted up to 31 Dec 2026 any more, and this would be on 30 Dec 2026/,
    );
    expect((await act(db, keepDraft, draftOf({ issueDate: '2026-12-30' }), NEXT_YEAR)).revision).toBe(1);
    const sides = [
      { account: '7900', amount: 1n },
      { account: '1000', amount: -1n },
    ];
    const journal = (date: string) => ({ date, text: 'Late', sides }) as never;
    expect(await refused(db, writeJournal, journal('2026-12-31'))).toMatch(/Nothing is posted up to/);
    expect(await refused(db, writeJournal, journal('2027-01-01'))).toBe('');
    expect(await refused(db, keepLedgerDays, { lockedUntil: '', yearStart: 1 })).toMatch(/A year is closed until/);
    expect(await refused(db, keepLedgerDays, { lockedUntil: '2027-01-05', yearStart: 4 })).toMatch(/A year is closed/);
    await expectSoundBook(db);
  });

  test('opened again it comes back to the same, and is closed to the same once more', async () => {
    const db = await twoYears();
    const before = await balances(db, '2027-12-31');
    await act(db, closeFiscalYear, { end: '2026-12-31' }, NEXT_YEAR);
    const closed = await balances(db, '2027-12-31');
    expect(await refused(db, reopenFiscalYear, { id: '2026-12-31', reason: ' ' })).not.toBe('');
    await act(db, reopenFiscalYear, { id: '2026-12-31', reason: 'an invoice was found' }, NEXT_YEAR);
    expect(await balances(db, '2027-12-31')).toMatchObject(before);
    expect((await fiscalYears(db)).lockedUntil).toBe('');
    await act(db, closeFiscalYear, { end: '2026-12-31' }, NEXT_YEAR);
    expect(await balances(db, '2027-12-31')).toEqual(closed);
    expect((await db.yearClosings.toArray()).map(({ reopened }) => reopened.length)).toEqual([1]);
    await expectSoundBook(db);
  });

  test('goes in order, after the year has ended', async () => {
    const db = await twoYears();
    expect(await refused(db, closeFiscalYear, { end: '2027-12-31' })).toMatch(/2026/);
    expect(await refused(db, closeFiscalYear, { end: '2026-12-31' }, '2026-12-31')).not.toBe('');
    expect(await refused(db, closeFiscalYear, { end: 'soon' })).not.toBe('');
    expect(await refused(await newBook(), closeFiscalYear, { end: '2026-12-31' })).not.toBe('');
  });
});

test('a lock is set by hand, and taken off again', async () => {
  const db = await newBook();
  await act(db, keepLedgerDays, { lockedUntil: '2026-11-30', yearStart: 1 }, NEXT_YEAR);
  expect(await refused(db, issueInvoice, { draftId: 'none' })).not.toMatch(/Nothing is posted/);
  const draft = await act(db, keepDraft, draftOf({ issueDate: '2026-11-30' }), NEXT_YEAR);
  expect(await refused(db, issueInvoice, { draftId: draft.id })).toMatch(/up to 30 Nov 2026/);
  await act(db, keepLedgerDays, { lockedUntil: '', yearStart: 1 }, NEXT_YEAR);
  expect(await refused(db, issueInvoice, { draftId: draft.id })).toBe('');
  await expectSoundBook(db);
});
