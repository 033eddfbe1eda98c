import fc from 'fast-check';
import { accepted, day, EUR, momentOn } from 'tests/book';
import type { RateOn } from '@/core/currency/exchangeRate';
import type { ForeignItem, Revaluation } from '@/core/currency/revaluation';
import { currency } from '@/core/kernel/currency';
import { decimal } from '@/core/kernel/decimal';
import { minor, minus, total } from '@/core/kernel/money';
import { accountFor, FIRST_CHART } from '@/core/ledger/account';
import type { JournalLine } from '@/core/ledger/entry';
import { type RevalueMaterial, revalue } from './revalue';

const [USD, JPY] = [currency('USD'), currency('JPY')];
const DAY = '2026-03-31';
const moment = momentOn('2026-04-02');
const RECEIVABLES = accountFor(FIRST_CHART, 'receivables');
const UNREALISED = accountFor(FIRST_CHART, 'exchange-unrealised');

const rateOf = (perHome: string): RateOn => ({ perHome: decimal(perHome), date: day('2026-03-30'), source: 'test' });
const itemOf = (over: Partial<ForeignItem>): ForeignItem => ({
  id: 'd1',
  kind: 'document',
  number: 'INV-2026-0001',
  customerName: 'A customer',
  currency: USD,
  open: minor(100_000n),
  openHome: minor(92_000n),
  ...over,
});
const materialOf = (over: Partial<RevalueMaterial>): RevalueMaterial => ({
  items: [itemOf({})],
  rates: new Map([['USD', rateOf('1.1')]]),
  earlier: [],
  chart: FIRST_CHART,
  homeCurrency: EUR,
  ...over,
});
const made = (material: RevalueMaterial) => accepted(revalue(material, DAY, moment));
/** Balance of an account after the entries of some days. */
function balanceOf(rows: { journal?: readonly { id: string; date: string }[]; journalLines?: readonly JournalLine[] }) {
  return (account: string, until: string) => {
    const ids = new Set((rows.journal ?? []).filter(({ date }) => date <= until).map(({ id }) => id));
    return total(
      (rows.journalLines ?? [])
        .filter((line) => line.account === account && ids.has(line.entryId))
        .map(({ amount }) => amount),
    );
  };
}

describe('revaluing open items', () => {
  test('posts what they are worth less what they stand at, and takes it back on the next day', () => {
    // 1,000.00 USD at 1.1 are 909.09 EUR, and stand at 920.00: a loss of 10.91.
    const { value, changes } = made(materialOf({}));
    expect(value.items[0]).toMatchObject({ worth: 90_909n, difference: -1091n });
    expect(changes.add?.journal?.map(({ date }) => date)).toEqual(['2026-03-31', '2026-04-01']);
    const balance = balanceOf(changes.add ?? {});
    expect([balance(RECEIVABLES, DAY), balance(UNREALISED, DAY)]).toEqual([-1091n, 1091n]);
    expect([balance(RECEIVABLES, '2026-04-01'), balance(UNREALISED, '2026-04-01')]).toEqual([0n, 0n]);
  });
  test('money on account is worth more to the customer where the currency rose', () => {
    // −500.00 USD at 1.0 are −500.00 EUR, and stand at −450.00.
    const credit = itemOf({ id: 'r1', kind: 'receipt', open: minor(-50_000n), openHome: minor(-45_000n) });
    const { value } = made(materialOf({ items: [credit], rates: new Map([['USD', rateOf('1')]]) }));
    expect(value.currencies).toMatchObject([{ currency: USD, difference: -5000n, change: -5000n }]);
  });
  test('a currency without minor units is read as one', () => {
    // 10,000 JPY at 160 are 62.50 EUR.
    const yen = itemOf({ currency: JPY, open: minor(10_000n), openHome: minor(6200n) });
    const { value } = made(materialOf({ items: [yen], rates: new Map([['JPY', rateOf('160')]]) }));
    expect(value.items[0]).toMatchObject({ worth: 6250n, difference: 50n });
  });
  test('done again with the same rates it posts nothing, and keeps that it was done', () => {
    const first = made(materialOf({})).value;
    const { value, changes } = made(materialOf({ earlier: [first] }));
    expect([value.entryId, value.mirrorId, changes.add?.journal]).toEqual(['', '', undefined]);
    expect(value.currencies).toMatchObject([{ difference: -1091n, change: 0n }]);
  });
  test('what was settled meanwhile is taken back whole, though nothing is open in its currency any more', () => {
    const first = made(materialOf({})).value;
    const { value } = made(materialOf({ items: [], earlier: [first] }));
    expect(value.currencies).toMatchObject([{ currency: USD, difference: 0n, change: 1091n }]);
  });
  test.each(['2026-03-30', '2026-02-29', '', 'March'])('%p is not the last day of a month', (date) => {
    const result = revalue(materialOf({}), date, moment);
    expect(result.ok ? [] : result.refusals.map(({ code, path }) => `${code} ${path}`)).toEqual(['invalid date']);
  });
  test('every currency without a rate is asked for', () => {
    const items = [itemOf({}), itemOf({ id: 'd2', currency: JPY })];
    const result = revalue(materialOf({ items, rates: new Map() }), DAY, moment);
    expect(result.ok ? [] : result.refusals.map(({ code, path }) => `${code} ${path}`)).toEqual([
      'missing perHome',
      'missing perHome',
    ]);
  });

  test('however often the rates change, what stands that day is worth less book by currency, and nothing the day after', () => {
    const amount = fc.bigInt({ min: -9_999_999n, max: 9_999_999n });
    const items = fc.array(fc.tuple(amount, amount, fc.constantFrom(USD, JPY)), { minLength: 1, maxLength: 8 });
    const rates = fc.array(fc.tuple(fc.integer({ min: 5000, max: 20_000 }), fc.integer({ min: 90, max: 220 })), {
      minLength: 1,
      maxLength: 4,
    });
    fc.assert(
      fc.property(items, rates, (open, days) => {
        const own = open.map(([sum, home, of], i) =>
          itemOf({ id: `d${i}`, currency: of, open: minor(sum), openHome: minor(home) }),
        );
        const earlier: Revaluation[] = [];
        const journal: { id: string; date: string }[] = [];
        const journalLines: JournalLine[] = [];
        for (const [dollar, yen] of days) {
          const today = new Map([
            ['USD', rateOf(String(dollar / 10_000))],
            ['JPY', rateOf(String(yen))],
          ]);
          const { value, changes } = made(materialOf({ items: own, rates: today, earlier }));
          earlier.push(value);
          journal.push(...(changes.add?.journal ?? []));
          journalLines.push(...(changes.add?.journalLines ?? []));
          const balance = balanceOf({ journal, journalLines });
          const worth = total(value.items.map((item) => item.worth));
          expect(balance(RECEIVABLES, DAY)).toBe(minus(worth, total(own.map(({ openHome }) => openHome))));
          expect(balance(UNREALISED, DAY)).toBe(-balance(RECEIVABLES, DAY));
          expect([balance(RECEIVABLES, '2026-04-01'), balance(UNREALISED, '2026-04-01')]).toEqual([0n, 0n]);
        }
      }),
    );
  });
});
