import { act, documentOf, issued, lineOf, momentOn, newBook, refusalCodes } from 'tests/book';
import { expectSoundBook } from 'tests/soundBook';
import type { PayTaxInput } from '@/core/decisions/tax/payTax';
import type { Deferral } from '@/core/documents/deferral';
import { currency } from '@/core/kernel/currency';
import { isoDate } from '@/core/kernel/date';
import { decimal } from '@/core/kernel/decimal';
import { minor, total } from '@/core/kernel/money';
import type { AccountRole } from '@/core/ledger/account';
import { revalueOpenItems } from './ledger/actions/revalue';
import { type Action, perform } from './perform';
import { cancelDocument } from './sales/actions/afterIssue';
import { creditInvoice } from './sales/actions/creditInvoice';
import type { BookDb } from './schema';
import { keepExchangeRate } from './setup/actions/taxSetup';
import { fileReturn } from './tax/actions/fileReturn';
import { payAuthority, undoAuthorityPayment } from './tax/actions/payTax';
import { reopenReturn } from './tax/actions/reopenReturn';

/* Period end by figures that were worked by hand: returns opened again and paid, open items revalued, revenue deferred. */

let db: BookDb;
beforeEach(async () => {
  db = await newBook();
});
afterEach(async () => {
  await expectSoundBook(db);
  await db.delete();
});

/** Balance of an account by its role at the end of a day, debits above zero. */
async function balance(role: AccountRole | '4100', until = '2027-12-31'): Promise<bigint> {
  const account = (await db.accounts.toArray()).find((one) => one.role === role || one.code === role);
  const lines = await db.journalLines.filter((line) => line.account === account?.code && line.date <= until).toArray();
  return total(lines.map(({ amount }) => amount));
}

const refusedBy = async <I, V>(action: Action<I, V>, input: I, on: string) =>
  refusalCodes(await perform(db, action, input, momentOn(on)));

const START = '2026-01-01';
const file = (on = '2026-03-05') => act(db, fileReturn, { registrationId: 'ie-vat', start: START, note: '' }, on);
const pay = (amount: bigint, over: Partial<PayTaxInput> = {}): PayTaxInput => ({
  registrationId: 'ie-vat',
  start: START,
  date: '2026-03-18',
  amount: minor(amount),
  ...over,
});

describe('a filed return', () => {
  beforeEach(async () => {
    // 23 % of 1,000.00.
    await issued(db, { lines: [lineOf({ price: '1000' })] }, '2026-01-12');
    await file();
  });

  test('is paid in parts, with what the authority charges, and never beyond what is left', async () => {
    await act(db, payAuthority, pay(20_000n), '2026-03-18');
    expect([await balance('tax-payable'), await balance('bank')]).toEqual([-3000n, -20_000n]);
    expect(await refusedBy(payAuthority, pay(3001n), '2026-03-19')).toEqual(['over-paid']);
    const last = await act(db, payAuthority, pay(3000n, { penalty: minor(500n), interest: minor(120n) }), '2026-03-19');
    expect([await balance('tax-payable'), await balance('bank'), await balance('bank-charges')]).toEqual([
      0n,
      -23_620n,
      620n,
    ]);
    await act(db, undoAuthorityPayment, { id: last.id, date: '2026-03-20' }, '2026-03-20');
    expect([await balance('tax-payable'), await balance('bank-charges')]).toEqual([-3000n, 0n]);
    expect(await refusedBy(undoAuthorityPayment, { id: last.id, date: '2026-03-20' }, '2026-03-20')).toEqual([
      'not-found',
    ]);
    expect(await refusedBy(payAuthority, pay(3001n), '2026-03-21')).toEqual(['over-paid']);
  });
  test('paid by another rate of exchange than it was posted at leaves a realised difference', async () => {
    await act(db, payAuthority, pay(23_000n, { money: minor(23_140n) }), '2026-03-18');
    expect([await balance('tax-payable'), await balance('bank'), await balance('exchange')]).toEqual([
      0n,
      -23_140n,
      140n,
    ]);
  });
  test('is opened again with a reason: what was filed is kept, late documents stay where they are', async () => {
    const late = await issued(db, { lines: [lineOf({ price: '10' })], taxPoint: '2026-02-20' }, '2026-03-06');
    expect(late.late).toBe(true);
    const input = { registrationId: 'ie-vat', start: START, reason: 'an invoice was left out' };
    expect(await refusedBy(reopenReturn, { ...input, reason: ' ' }, '2026-03-09')).toEqual(['missing']);
    await act(db, reopenReturn, input, '2026-03-09');
    expect([await balance('output-tax'), await balance('tax-payable')]).toEqual([-23_230n, 0n]);
    expect(await refusedBy(payAuthority, pay(1n), '2026-03-09')).toEqual(['not-filed']);
    expect(await refusedBy(reopenReturn, input, '2026-03-09')).toEqual(['not-filed']);
    // 23 % of 77.00 is 17.71.
    const own = await issued(db, { lines: [lineOf({ price: '77' })], taxPoint: '2026-02-21' }, '2026-03-10');
    expect([own.late, own.periodId]).toEqual([false, 'ie-vat|2026-01-01']);
    await file('2026-03-12');
    expect(await balance('tax-payable')).toBe(-24_771n);
    const [version] = await db.reopenedFilings.toArray();
    expect([version?.figures.tax, version?.reopened.reason]).toEqual([23_000n, 'an invoice was left out']);
    expect((await documentOf(db, late.id)).periodId).toBe('ie-vat|2026-03-01');
  });
  test('that others were filed after is not opened', async () => {
    await act(db, fileReturn, { registrationId: 'ie-vat', start: '2026-03-01', note: '' }, '2026-05-05');
    const input = { registrationId: 'ie-vat', start: START, reason: 'x' };
    expect(await refusedBy(reopenReturn, input, '2026-05-06')).toEqual(['later-filed']);
  });
});

test('a return below zero is paid back by the authority', async () => {
  const invoice = await issued(db, { lines: [lineOf({ price: '100' })] }, '2026-01-12');
  await file();
  const credit = { documentId: invoice.id, date: '2026-03-10', reason: 'sent back' };
  await act(db, creditInvoice, credit, '2026-03-10');
  await act(db, fileReturn, { registrationId: 'ie-vat', start: '2026-03-01', note: '' }, '2026-05-05');
  const back = pay(2300n, { start: '2026-03-01', date: '2026-05-20' });
  expect(await refusedBy(payAuthority, { ...back, amount: minor(2301n) }, '2026-05-20')).toEqual(['over-paid']);
  const paid = await act(db, payAuthority, back, '2026-05-20');
  expect([paid.amount, paid.money, await balance('bank')]).toEqual([-2300n, -2300n, 2300n]);
});

describe('open items in other currencies', () => {
  const rate = (date: string, perHome: string) =>
    act(
      db,
      keepExchangeRate,
      {
        value: {
          id: `USD|${date}`,
          currency: currency('USD'),
          date: isoDate(date),
          perHome: decimal(perHome),
          source: 'test',
        },
        isNew: true,
      },
      date,
    );

  test('are revalued at a month’s end, taken back on the next day, and again by the change alone', async () => {
    await rate('2026-01-01', '1.25');
    // 1,230.00 USD are 984.00 EUR.
    const { openHome } = await issued(db, { lines: [lineOf({ price: '1000' })], currency: 'USD' }, '2026-02-10');
    expect(openHome).toBe(98_400n);
    expect(await refusedBy(revalueOpenItems, { date: '2026-03-30' }, '2026-03-31')).toEqual(['invalid']);
    await rate('2026-03-31', '1.20');
    // 1,025.00: 41.00 above what stands.
    await act(db, revalueOpenItems, { date: '2026-03-31' }, '2026-04-01');
    expect([await balance('exchange-unrealised', '2026-03-31'), await balance('receivables', '2026-03-31')]).toEqual([
      -4100n,
      102_500n,
    ]);
    expect([await balance('exchange-unrealised'), await balance('receivables')]).toEqual([0n, 98_400n]);
    const again = await act(db, revalueOpenItems, { date: '2026-03-31' }, '2026-04-01');
    expect([again.entryId, again.currencies.map(({ change }) => change)]).toEqual(['', [0n]]);
    // Another invoice of that month came late: 123.00 USD, 98.40 then, 102.50 now.
    await issued(db, { lines: [lineOf({ price: '100' })], currency: 'USD' }, '2026-03-31');
    await db.exchangeRates.update('USD|2026-03-31', { perHome: decimal('1.20') });
    const third = await act(db, revalueOpenItems, { date: '2026-03-31' }, '2026-04-02');
    expect(third.currencies.map(({ difference, change }) => [difference, change])).toEqual([[4100n, 0n]]);
  });
  test('without a rate are asked for, and a book without any posts nothing', async () => {
    const none = await act(db, revalueOpenItems, { date: '2026-03-31' }, '2026-04-01');
    expect([none.items, none.entryId]).toEqual([[], '']);
    await rate('2026-02-01', '1.25');
    await issued(db, { lines: [lineOf({ price: '100' })], currency: 'USD' }, '2026-02-10');
    expect(await refusedBy(revalueOpenItems, { date: '2026-01-31' }, '2026-04-01')).toEqual([]);
    await db.exchangeRates.clear();
    expect(await refusedBy(revalueOpenItems, { date: '2026-02-28' }, '2026-04-01')).toEqual(['missing']);
  });
});

describe('deferred revenue', () => {
  const YEAR: Deferral = { kind: 'months', months: 12, first: '2026-01' };
  const hire = (price = '1200', deferral: Deferral = YEAR) => lineOf({ price, deferral });

  test('is earned month by month; its tax is not deferred', async () => {
    await issued(db, { lines: [hire(), lineOf({ price: '50' })] }, '2026-01-12');
    expect(await Promise.all([balance('4100', '2026-01-30'), balance('deferred-income', '2026-01-30')])).toEqual([
      -5000n,
      -120_000n,
    ]);
    expect(await balance('4100', '2026-03-31')).toBe(-35_000n);
    expect([await balance('4100'), await balance('deferred-income'), await balance('output-tax')]).toEqual([
      -125_000n,
      0n,
      -28_750n,
    ]);
  });
  test('is taken back by credit notes, newest first, up to what is left; the rest from income', async () => {
    const { id } = await issued(db, { lines: [hire()] }, '2026-01-12');
    const credit = (amount: bigint, date: string) =>
      act(
        db,
        creditInvoice,
        { documentId: id, date, reason: 'ended', request: { kind: 'amount', amount: minor(amount) } },
        date,
      );
    // 307.50 with tax are 250.00 of revenue: December, November, and half of October.
    await credit(30_750n, '2026-04-10');
    const [plan] = await db.deferrals.toArray();
    expect(plan?.entries.slice(-4).map(({ taken }) => taken)).toEqual([0n, 5000n, 10_000n, 10_000n]);
    expect(await balance('deferred-income', '2026-04-10')).toBe(-65_000n);
    // The rest is 950.00 of revenue, of which 650.00 are deferred and 300.00 were earned until March.
    await act(db, creditInvoice, { documentId: id, date: '2026-04-11', reason: 'ended' }, '2026-04-11');
    expect(await Promise.all([balance('4100', '2026-04-11'), balance('deferred-income', '2026-04-11')])).toEqual([
      0n,
      0n,
    ]);
    expect([await balance('4100'), await balance('deferred-income')]).toEqual([0n, 0n]);
  });
  test('of one line is left alone where another line is credited', async () => {
    const plain = lineOf({ price: '50' });
    const { id } = await issued(db, { lines: [hire(), plain] }, '2026-01-12');
    const request = { kind: 'lines' as const, quantities: new Map([[plain.id, decimal('1')]]) };
    await act(db, creditInvoice, { documentId: id, date: '2026-01-20', reason: 'not done', request }, '2026-01-20');
    expect(await balance('deferred-income', '2026-01-20')).toBe(-120_000n);
    expect(await balance('4100', '2026-01-20')).toBe(0n);
  });
  test('goes with a cancelled invoice, the months that were earned too', async () => {
    const { id } = await issued(db, { lines: [hire()] }, '2026-01-12');
    await act(db, cancelDocument, { documentId: id, reason: 'double' }, '2026-02-20');
    for (const until of ['2026-01-31', '2026-06-30', '2027-12-31'])
      expect([await balance('4100', until), await balance('deferred-income', until)]).toEqual([0n, 0n]);
  });
  test('of an invoice in another currency stands in home currency', async () => {
    await act(
      db,
      keepExchangeRate,
      {
        value: {
          id: 'USD|2026-01-01',
          currency: currency('USD'),
          date: isoDate('2026-01-01'),
          perHome: decimal('1.25'),
          source: 'test',
        },
        isNew: true,
      },
      '2026-01-01',
    );
    await issued(db, { lines: [hire('100')], currency: 'USD' }, '2026-01-12');
    expect([await balance('deferred-income', '2026-01-12'), await balance('4100')]).toEqual([-8000n, -8000n]);
  });
  test('that can’t be read is refused at its line', async () => {
    const draft = issued(db, { lines: [hire('10', { kind: 'days', from: '2026-02-01', to: '' })] }, '2026-01-12');
    await expect(draft).rejects.toThrow('lines[0].deferral');
  });
});
