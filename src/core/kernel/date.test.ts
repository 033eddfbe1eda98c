import fc from 'fast-check';
import { addDays, addMonths, daysBetween, endOfMonth, isIsoDate, isoDate, writeDate } from './date';
import { holdsParts, searchKeys, searchParts } from './words';

describe('days', () => {
  test.each(['2024-02-29', '1900-01-01', '2999-12-31'])('%s exists', (day) => expect(isIsoDate(day)).toBe(true));
  test.each(['2023-02-29', '2026-13-01', '2026-00-10', '26-1-1', '2026-11-23T00:00', '', null, 20260101])(
    '%p does not',
    (day) => expect(isIsoDate(day)).toBe(false),
  );
  test('a month later is the last day where there is no such day', () => {
    expect(addMonths(isoDate('2024-01-31'), 1)).toBe('2024-02-29');
    expect(addMonths(isoDate('2023-01-31'), 1)).toBe('2023-02-28');
    expect(addMonths(isoDate('2026-03-31'), -1)).toBe('2026-02-28');
  });
  test('days cross months, years and the change of the clocks', () => {
    expect(addDays(isoDate('2026-12-31'), 1)).toBe('2027-01-01');
    expect(addDays(isoDate('2026-03-28'), 2)).toBe('2026-03-30');
    expect(daysBetween(isoDate('2026-10-24'), isoDate('2026-10-26'))).toBe(2);
    expect(endOfMonth(isoDate('2028-02-10'))).toBe('2028-02-29');
  });
  test('are written for people', () => expect(writeDate(isoDate('2026-11-03'))).toBe('3 Nov 2026'));
});

describe('find-as-you-type keys', () => {
  const keys = searchKeys(['Ballyvaughan Harbour Board', 'INV-2026-0142', 'Sjøgata Tromsø']);
  test.each(['bour', 'HARB', '0142', '142', 'bally board', 'sjøg', 'vaugh inv'])('%s is found', (query) => {
    expect(holdsParts(keys, searchParts(query))).toBe(true);
  });
  test.each(['harbor', 'bally 0143', 'xyz'])('%s is not', (query) => {
    expect(holdsParts(keys, searchParts(query))).toBe(false);
  });
  test('accents do not matter', () => {
    expect(holdsParts(searchKeys(['Müller Łódź']), searchParts('muller'))).toBe(true);
  });
});

describe('for any day', () => {
  const days = fc.integer({ min: 0, max: 300_000 }).map((n) => addDays(isoDate('1900-01-01'), n));
  test('adding days and counting them are each other’s inverse', () => {
    fc.assert(
      fc.property(days, fc.integer({ min: -5000, max: 5000 }), (date, n) => {
        fc.pre(date > '1920-01-01');
        expect(daysBetween(date, addDays(date, n))).toBe(n);
      }),
    );
  });
  test('the order of the text is the order of time', () => {
    fc.assert(
      fc.property(days, days, (a, b) => expect(Math.sign(daysBetween(a, b))).toBe(a === b ? 0 : a < b ? 1 : -1)),
    );
  });
  test('a month on is never more than 31 days on, and never the month after next', () => {
    fc.assert(
      fc.property(days, (date) => {
        const later = addMonths(date, 1);
        expect(daysBetween(date, later)).toBeLessThanOrEqual(31);
        expect(later <= endOfMonth(addDays(endOfMonth(date), 1))).toBe(true);
      }),
    );
  });
});
