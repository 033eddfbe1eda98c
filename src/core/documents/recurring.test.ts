import fc from 'fast-check';
import { draftOf, lineOf } from 'tests/book';
import { addDays, endOfMonth, isoDate } from '@/core/kernel/date';
import {
  datesFrom,
  dayWriter,
  draftOfDate,
  newRecurring,
  nextFrom,
  type Recurring,
  spanOfDate,
  withDaysFilled,
} from './recurring';
import { dateOf, placeFrom, type Rhythm } from './rhythm';

const day = fc.integer({ min: 0, max: 4000 }).map((n) => addDays(isoDate('2024-01-01'), n));
const rhythm: fc.Arbitrary<Rhythm> = fc.record({
  unit: fc.constantFrom('day', 'week', 'month', 'year'),
  every: fc.integer({ min: 1, max: 14 }),
  lastDay: fc.boolean(),
});
const monthly: Rhythm = { unit: 'month', every: 1, lastDay: false };

describe('a rhythm', () => {
  test('by months counts from its first date, whatever the month before had', () => {
    const dates = Array.from({ length: 5 }, (_, n) => dateOf(isoDate('2026-01-31'), monthly, n));
    expect(dates).toEqual(['2026-01-31', '2026-02-28', '2026-03-31', '2026-04-30', '2026-05-31']);
    expect(dateOf(isoDate('2024-02-29'), { ...monthly, unit: 'year' }, 1)).toBe('2025-02-28');
    expect(dateOf(isoDate('2024-02-29'), { ...monthly, unit: 'year' }, 4)).toBe('2028-02-29');
    expect(dateOf(isoDate('2026-02-28'), { ...monthly, lastDay: true }, 1)).toBe('2026-03-31');
    expect(dateOf(isoDate('2026-01-05'), { ...monthly, unit: 'week', every: 2 }, 3)).toBe('2026-02-16');
  });
  test('rises, stays on its day of the month where there is one, and is found by any day', () => {
    fc.assert(
      fc.property(day, rhythm, fc.nat(60), fc.integer({ min: -40, max: 40 }), (first, own, n, off) => {
        const date = dateOf(first, own, n);
        expect(dateOf(first, own, n + 1) > date).toBe(true);
        expect(dateOf(first, own, placeFrom(first, own, date))).toBe(date);
        if (own.unit === 'month' || own.unit === 'year') {
          const wanted = own.lastDay ? '31' : first.slice(8);
          expect(date.slice(8)).toBe(wanted < endOfMonth(date).slice(8) ? wanted : endOfMonth(date).slice(8));
        }
        const from = addDays(date, off);
        const place = placeFrom(first, own, from);
        expect(dateOf(first, own, place) >= from).toBe(true);
        expect(place === 0 || dateOf(first, own, place - 1) < from).toBe(true);
      }),
    );
  });
});

const recurring = (over: Partial<Recurring> = {}): Recurring => ({
  ...newRecurring('r', 'Hire', '2026-01-31'),
  ...over,
});

describe('a recurring document', () => {
  test('ends on a date or after a number of times, and leaves skipped dates out without making up for them', () => {
    const skipped = [isoDate('2026-02-28')];
    expect(datesFrom(recurring({ times: 3, skipped }), isoDate('2026-01-01'), 12)).toEqual([
      { date: '2026-01-31', skipped: false },
      { date: '2026-02-28', skipped: true },
      { date: '2026-03-31', skipped: false },
    ]);
    expect(nextFrom(recurring({ skipped }), isoDate('2026-02-01'))).toBe('2026-03-31');
    expect(nextFrom(recurring({ until: isoDate('2026-02-28') }), isoDate('2026-03-01'))).toBe('');
    expect(nextFrom(recurring({ times: 1, skipped: [isoDate('2026-01-31')] }), isoDate('2026-01-01'))).toBe('');
  });
  test('stands for the time until its next date', () => {
    expect(spanOfDate(recurring(), isoDate('2026-02-28'))).toEqual({ from: '2026-02-28', to: '2026-03-30' });
  });
  test('fills the month and its days into its texts, in the language of the customer', () => {
    const pattern = draftOf({
      lines: [lineOf({ description: 'Hire {month}\n{period from} – {period to}, {nothing}' })],
      note: '{year}',
      recurringId: 'r',
    });
    const date = isoDate('2026-02-28');
    const dated = draftOfDate(recurring(), pattern, date, 'new', 'EUR', new Map());
    const made = withDaysFilled(dated, recurring(), date, 'de');
    expect(made.lines[0]?.description).toBe('Hire Februar 2026\n28. Februar 2026 – 30. März 2026, {nothing}');
    expect([made.note, made.id, made.issueDate, made.recurringId]).toEqual(['2026', 'new', '2026-02-28', undefined]);
    expect(dayWriter('fr').month(isoDate('2026-02-01'))).toBe('février 2026');
  });
  test('takes each price change from its date on, in their order, rounded to the cent', () => {
    const change = (from: string, percent: string, priceListId = '') => ({ from: isoDate(from), percent, priceListId });
    const priceChanges = [change('2026-04-01', '10'), change('2026-03-01', '2.5'), change('2026-05-01', '', 'list')];
    const pattern = draftOf({ lines: [lineOf({ id: 'a', price: '99.99' })] });
    const priceOn = (date: string, listed: [string, { price: string; priceFrom: string }][] = []) =>
      draftOfDate(recurring({ priceChanges }), pattern, isoDate(date), 'x', 'EUR', new Map(listed)).lines[0]?.price;
    expect(priceOn('2026-02-28')).toBe('99.99');
    // 99.99 × 1.025 = 102.48975; 102.49 × 1.1 = 112.739.
    expect(priceOn('2026-03-31')).toBe('102.49');
    expect(priceOn('2026-04-30')).toBe('112.74');
    expect(priceOn('2026-05-31', [['a', { price: '80', priceFrom: 'the list' }]])).toBe('80');
  });
});
