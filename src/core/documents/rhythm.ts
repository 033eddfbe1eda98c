import { addDays, addMonths, daysBetween, endOfMonth, type IsoDate } from '@/core/kernel/date';

export const RHYTHM_UNITS = ['day', 'week', 'month', 'year'] as const;

export type RhythmUnit = (typeof RHYTHM_UNITS)[number];

/** How often something comes again, counted from its first date. */
export interface Rhythm {
  readonly unit: RhythmUnit;
  /** Every so many of them, from 1. */
  readonly every: number;
  /** By months or years: always on the last day of the month. */
  readonly lastDay: boolean;
}

/**
 * The n-th date, from 0, counted from the first and never from the one before: 31 January, 28 February, 31 March. With
 * `lastDay` each is the last day of its month.
 */
export function dateOf(first: IsoDate, { unit, every, lastDay }: Rhythm, n: number): IsoDate {
  if (unit === 'day') return addDays(first, n * every);
  if (unit === 'week') return addDays(first, n * every * 7);
  const date = addMonths(first, n * every * (unit === 'year' ? 12 : 1));
  return lastDay ? endOfMonth(date) : date;
}

/** Fewest days from one to the next. */
const FEWEST_DAYS: Readonly<Record<RhythmUnit, number>> = { day: 1, week: 7, month: 28, year: 365 };

/** The place of the first date that is not before a day. */
export function placeFrom(first: IsoDate, rhythm: Rhythm, day: IsoDate): number {
  // Days of a rhythm rise with their place, so that it is found by halves.
  const most = Math.ceil(daysBetween(first, day) / (FEWEST_DAYS[rhythm.unit] * rhythm.every)) + 1;
  let [low, high] = [0, Math.max(0, most)];
  while (low < high) {
    const middle = Math.floor((low + high) / 2);
    if (dateOf(first, rhythm, middle) < day) low = middle + 1;
    else high = middle;
  }
  return low;
}
