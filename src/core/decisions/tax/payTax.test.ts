import fc from 'fast-check';
import { accepted, day, EUR, momentOn } from 'tests/book';
import { type Minor, minor, negated, total } from '@/core/kernel/money';
import { FIRST_CHART } from '@/core/ledger/account';
import type { JournalLine } from '@/core/ledger/entry';
import type { TaxPeriod } from '@/core/returns/return';
import { leftOf, type OwedReturn, payableNow } from '@/core/returns/taxPayment';
import { demoRegistration } from '@/demo/setup';
import { type PayTaxInput, type PayTaxMaterial, payTax, undoTaxPayment } from './payTax';

const registration = demoRegistration(day('2026-01-01'));
const period: TaxPeriod = {
  id: 'ie-vat|2026-01-01',
  registrationId: 'ie-vat',
  start: day('2026-01-01'),
  end: day('2026-02-28'),
  filed: { at: '2026-03-05T12:00:00.000Z', operator: 'Tester', entryId: 'filing', figures: {} as never, note: '' },
};
const returnOf = (payable: bigint, ...paid: bigint[]): OwedReturn => ({
  periodId: period.id,
  payable: minor(payable),
  payments: paid.map((amount) => ({ amount: minor(amount), undone: null })),
});
const materialOf = (owed: OwedReturn, over: Partial<PayTaxMaterial> = {}): PayTaxMaterial => ({
  registration,
  period,
  owed,
  all: [owed],
  setOff: minor(0n),
  chart: FIRST_CHART,
  homeCurrency: EUR,
  ...over,
});
const inputOf = (over: Partial<PayTaxInput> = {}): PayTaxInput => ({
  registrationId: 'ie-vat',
  start: period.start,
  date: '2026-03-18',
  amount: minor(10_000n),
  ...over,
});
const moment = momentOn('2026-03-18');
const sums = (lines: readonly JournalLine[]) => {
  const by: Record<string, bigint> = {};
  for (const { account, amount } of lines) by[account] = (by[account] ?? 0n) + amount;
  return by;
};

describe('what one return can still be paid with', () => {
  test.each<[string, OwedReturn, readonly OwedReturn[], bigint, bigint]>([
    ['all of it', returnOf(23_000n), [], 0n, 23_000n],
    ['what parts left', returnOf(23_000n, 20_000n, 1000n), [], 0n, 2000n],
    ['not what withheld tax was set against', returnOf(23_000n), [], 5000n, 18_000n],
    // 23,000 and 1,000 are owed, 5,000 were set off: 19,000 in all.
    ['not more than all returns together', returnOf(23_000n), [returnOf(1000n)], 5000n, 19_000n],
    ['nothing where more was set off', returnOf(23_000n), [], 24_000n, 0n],
    ['a return below zero, whatever the others', returnOf(-2300n), [returnOf(9000n)], 0n, -2300n],
    ['what the authority has not paid back yet', returnOf(-2300n, -300n), [], 0n, -2000n],
  ])('%s', (_, one, others, setOff, now) => expect(payableNow(one, [one, ...others], minor(setOff))).toBe(now));
  test('an undone payment counts no more', () => {
    const undone = { amount: minor(400n), undone: { on: day('2026-04-01'), entryId: 'e' } };
    expect(leftOf({ ...returnOf(1000n, 100n), payments: [...returnOf(0n, 100n).payments, undone] })).toBe(900n);
  });
});

describe('paying the authority', () => {
  test.each<[string, Partial<PayTaxInput>, Partial<PayTaxMaterial>, readonly string[]]>([
    ['a period that is open', {}, { period: { ...period, filed: null } }, ['not-filed period']],
    ['no day', { date: '18/3' }, {}, ['invalid date']],
    ['an account that is not in the chart', { account: '9999' }, {}, ['unknown account']],
    ['charges on one', { chargesAccount: '9999' }, {}, ['unknown chargesAccount']],
    ['nothing', { amount: minor(0n) }, {}, ['invalid amount']],
    ['an amount below zero', { amount: minor(-1n) }, {}, ['invalid amount']],
    ['money that came back', { money: minor(-10_000n) }, {}, ['invalid money']],
    ['a penalty below zero', { penalty: minor(-1n) }, {}, ['invalid penalty']],
    ['interest below zero', { interest: minor(-1n) }, {}, ['invalid interest']],
    ['a cent too much', { amount: minor(23_001n) }, {}, ['over-paid amount']],
    [
      'all that is wrong at once',
      { date: '', account: 'x', amount: minor(0n) },
      {},
      ['invalid date', 'unknown account', 'invalid amount'],
    ],
  ])('refuses %s', (_, input, over, refused) => {
    const result = payTax(materialOf(returnOf(23_000n), over), inputOf(input), moment);
    expect(result.ok ? [] : result.refusals.map(({ code, path }) => `${code} ${path}`)).toEqual(refused);
  });

  test('takes from the account of its registration where that has one of its own', () => {
    const own = { ...registration, accounts: { ...registration.accounts, payable: '2240' } };
    const { changes } = accepted(payTax(materialOf(returnOf(23_000n), { registration: own }), inputOf(), moment));
    expect(sums(changes.add?.journalLines ?? [])).toEqual({ '2240': 10_000n, '1000': -10_000n });
  });

  test('a refund reaches the account, less what the authority keeps of it', () => {
    // 100.00 of 230.00 come back; 12.00 of interest are kept, so 88.00 arrive.
    const input = inputOf({ interest: minor(1200n), account: '1010' });
    const { value, changes } = accepted(payTax(materialOf(returnOf(-23_000n)), input, moment));
    expect([value.amount, value.money]).toEqual([-10_000n, -8800n]);
    const charged = FIRST_CHART.find(({ role }) => role === 'bank-charges')?.code ?? '';
    expect(sums(changes.add?.journalLines ?? [])).toEqual({ '2210': -10_000n, [charged]: 1200n, '1010': 8800n });
  });

  test('an undone one is mirrored on its day, and never before the day of the payment', () => {
    const { value, changes } = accepted(payTax(materialOf(returnOf(23_000n)), inputOf({ date: '2026-04-02' }), moment));
    const undo = undoTaxPayment(value, changes.add?.journalLines ?? [], '2026-03-20', moment);
    const { journal, journalLines } = accepted(undo).changes.add ?? {};
    expect(journal?.map(({ date }) => date)).toEqual(['2026-04-02']);
    expect(sums([...(changes.add?.journalLines ?? []), ...(journalLines ?? [])])).toEqual({ '2210': 0n, '1000': 0n });
    const kept = accepted(undo).changes.put?.taxPayments?.[0];
    expect(kept?.undone?.on).toBe('2026-04-02');
    const again = undoTaxPayment(kept ?? value, [], '2026-04-03', moment);
    expect(again.ok ? '' : again.refusals[0]?.code).toBe('not-found');
  });

  test('in any parts, with any charges and any money, debits are credits and tax payable ends at nothing', () => {
    const cents = fc.bigInt({ min: 1n, max: 99_999n });
    const part = fc.record({
      amount: cents,
      penalty: fc.option(cents, { nil: 0n }),
      interest: fc.option(cents, { nil: 0n }),
      money: fc.option(cents, { nil: undefined }),
    });
    fc.assert(
      fc.property(fc.array(part, { minLength: 1, maxLength: 6 }), fc.boolean(), (parts, back) => {
        const all = total(parts.map(({ amount }) => minor(amount)));
        const payable: Minor = back ? negated(all) : all;
        let owed: OwedReturn = { periodId: period.id, payable, payments: [] };
        const lines: JournalLine[] = [];
        for (const { amount, penalty, interest, money } of parts) {
          const input = inputOf({
            amount: minor(amount),
            penalty: minor(penalty),
            interest: minor(interest),
            ...(money !== undefined && { money: minor(money) }),
          });
          const { value, changes } = accepted(payTax(materialOf(owed), input, moment));
          owed = { ...owed, payments: [...owed.payments, value] };
          const own = changes.add?.journalLines ?? [];
          expect(total(own.map((line) => line.amount))).toBe(0n);
          // What left the account is what the payment says.
          expect(sums(own)['1000'] ?? 0n).toBe(negated(value.money));
          lines.push(...own);
        }
        expect(leftOf(owed)).toBe(0n);
        expect(sums(lines)['2210']).toBe(payable);
      }),
    );
  });
});
