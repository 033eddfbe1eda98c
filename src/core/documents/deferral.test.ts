import fc from 'fast-check';
import { addDays, isoDate } from '@/core/kernel/date';
import { minor, total } from '@/core/kernel/money';
import { type Deferral, earnedParts, isDeferral } from './deferral';
import { type DeferralPlan, stillDeferred, takenBack, withTaken } from './deferralPlan';

const ON = isoDate('2026-01-12');
const said = (net: bigint, deferral: Deferral, posted = ON) =>
  earnedParts(minor(net), deferral, posted).map(({ date, amount }) => `${date} ${amount}`);

describe('revenue that belongs to other days', () => {
  test('by the days of each month, both ends in: 17, 28, 31 and 14 of 90', () => {
    expect(said(100_000n, { kind: 'days', from: '2026-01-15', to: '2026-04-14' })).toEqual([
      '2026-01-31 18889',
      '2026-02-28 31111',
      '2026-03-31 34444',
      '2026-04-30 15556',
    ]);
  });
  test('by equal months: twelfths of 100.00 are 8.33, four of them 8.34', () => {
    const parts = said(10_000n, { kind: 'months', months: 12, first: '2026-01' });
    expect(parts.slice(3, 6)).toEqual(['2026-04-30 834', '2026-05-31 833', '2026-06-30 833']);
    expect(parts).toHaveLength(12);
  });
  test('by days of its own', () => {
    const parts = [
      { date: '2026-02-15', percent: '33.3' },
      { date: '2026-09-15', percent: '66.7' },
    ];
    expect(said(20_000n, { kind: 'parts', parts })).toEqual(['2026-02-15 6660', '2026-09-15 13340']);
  });
  test('what belongs to months that have ended is earned on the day of the posting', () => {
    expect(said(300n, { kind: 'months', months: 3, first: '2025-11' })).toEqual([
      '2026-01-12 100',
      '2026-01-12 100',
      '2026-01-31 100',
    ]);
  });
  test.each<[string, Deferral]>([
    ['an end before its begin', { kind: 'days', from: '2026-02-01', to: '2026-01-01' }],
    ['no day', { kind: 'days', from: '', to: '2026-01-01' }],
    ['centuries', { kind: 'days', from: '1900-01-01', to: '2026-01-01' }],
    ['no month', { kind: 'months', months: 0, first: '2026-01' }],
    ['half a month', { kind: 'months', months: 1.5, first: '2026-01' }],
    ['a thirteenth month', { kind: 'months', months: 1, first: '2026-13' }],
    ['percents that make 99', { kind: 'parts', parts: [{ date: '2026-01-01', percent: '99' }] }],
    [
      'a percent below zero',
      {
        kind: 'parts',
        parts: [
          { date: '2026-01-01', percent: '-1' },
          { date: '2026-01-02', percent: '101' },
        ],
      },
    ],
    ['no part', { kind: 'parts', parts: [] }],
  ])('%s is refused', (_, deferral) => expect(isDeferral(deferral)).toBe(false));

  const DEFERRALS: fc.Arbitrary<Deferral> = fc.oneof(
    fc.tuple(fc.integer({ min: -400, max: 400 }), fc.integer({ min: 0, max: 900 })).map(
      ([from, days]): Deferral => ({
        kind: 'days',
        from: addDays(ON, from),
        to: addDays(addDays(ON, from), days),
      }),
    ),
    fc.integer({ min: 1, max: 60 }).map((months): Deferral => ({ kind: 'months', months, first: '2025-12' })),
    fc
      .array(fc.tuple(fc.integer({ min: 0, max: 500 }), fc.integer({ min: 1, max: 9 })), { minLength: 1, maxLength: 9 })
      .map((parts): Deferral => {
        const last = 100 - parts.slice(1).reduce((sum, [, percent]) => sum + percent, 0);
        return {
          kind: 'parts',
          parts: parts.map(([days, percent], i) => ({
            date: addDays(ON, days),
            percent: String(i === 0 ? last : percent),
          })),
        };
      }),
  );
  test('is all of it for any net, and never earned before it is posted', () => {
    fc.assert(
      fc.property(DEFERRALS, fc.bigInt({ min: -10_000_000n, max: 10_000_000n }), (deferral, net) => {
        expect(isDeferral(deferral)).toBe(true);
        const parts = earnedParts(minor(net), deferral, ON);
        expect(total(parts.map(({ amount }) => amount))).toBe(net);
        expect(parts.every(({ date }) => date >= ON)).toBe(true);
      }),
    );
  });
  test('is taken back newest first, never more than is left or credited', () => {
    const sums = fc.array(fc.bigInt({ min: 1n, max: 90_000n }), { minLength: 1, maxLength: 5 });
    fc.assert(
      fc.property(DEFERRALS, fc.bigInt({ min: 1n, max: 90_000n }), sums, (deferral, net, credits) => {
        const entries = earnedParts(minor(net), deferral, ON).map((part, i) => ({
          ...part,
          entryId: `e${i}`,
          taken: minor(0n),
        }));
        const until = entries.at(-1)?.date ?? ON;
        let plans: readonly DeferralPlan[] = [
          {
            ...{ id: 'd:l', documentId: 'd', documentNumber: 'INV-1', customerId: 'c', customerName: 'C' },
            ...{ lineId: 'l', description: 'Hire', account: '4200', entries, until },
          },
        ];
        for (const credit of credits) {
          const left = total(plans.map((plan) => stillDeferred(plan, ON)));
          const taken = takenBack(plans, minor(credit), ON);
          const sum = total(taken.map(({ amount }) => amount));
          expect(sum).toBe(credit < left ? credit : left);
          const dates = taken.map(({ entry }) => entry.date);
          expect(dates).toEqual([...dates].sort().reverse());
          if (taken.length > 0) plans = withTaken(plans, taken);
          expect(total(plans.map((plan) => stillDeferred(plan, ON)))).toBe(left - sum);
        }
      }),
    );
  });
});
