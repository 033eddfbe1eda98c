import { UTCDate } from '@date-fns/utc';
import {
  addDays as addDaysTo,
  addMonths as addMonthsTo,
  differenceInCalendarDays,
  formatISO,
  isValid,
  lastDayOfMonth,
  nextMonday,
} from 'date-fns';

declare const brand: unique symbol;

/** A calendar day, `YYYY-MM-DD`. Text order is time order. Has no time zone. */
export type IsoDate = string & { readonly [brand]: 'date' };

/** A month of the calendar, `YYYY-MM`. */
export type IsoMonth = string & { readonly [brand]: 'month' };

const SHAPE = /^(\d{4})-(\d{2})-(\d{2})$/;

/** True for a day that exists, from 1900 to 2999: `2024-02-29` but not `2023-02-29`. */
export function isIsoDate(text: unknown): text is IsoDate {
  if (typeof text !== 'string') return false;
  const match = SHAPE.exec(text);
  if (!match) return false;
  const [, y, m, d] = match.map(Number) as [number, number, number, number];
  if (y < 1900 || y > 2999 || m < 1 || m > 12) return false;
  // Each month has them: the calendar is asked for the last days alone, as a book is checked by millions of dates.
  if (d >= 1 && d <= 28) return true;
  const day = new UTCDate(y, m - 1, d);
  return isValid(day) && day.getUTCMonth() === m - 1 && day.getUTCDate() === d;
}

/** @throws RangeError for text that is not a day; for literals and values already checked. */
export function isoDate(text: string): IsoDate {
  if (!isIsoDate(text)) throw new RangeError(`not a date: ${text}`);
  return text;
}

function toDay(date: IsoDate): UTCDate {
  return new UTCDate(Number(date.slice(0, 4)), Number(date.slice(5, 7)) - 1, Number(date.slice(8, 10)));
}

function fromDay(day: Date): IsoDate {
  return formatISO(day, { representation: 'date' }) as IsoDate;
}

export function addDays(date: IsoDate, days: number): IsoDate {
  return fromDay(addDaysTo(toDay(date), days));
}

/** A month later on the same day, or on the month's last day where there is none: 31 Jan + 1 = 28 or 29 Feb. */
export function addMonths(date: IsoDate, months: number): IsoDate {
  return fromDay(addMonthsTo(toDay(date), months));
}

export function endOfMonth(date: IsoDate): IsoDate {
  return fromDay(lastDayOfMonth(toDay(date)));
}

/** Days from `from` to `to`; negative when `to` is earlier. */
export function daysBetween(from: IsoDate, to: IsoDate): number {
  return differenceInCalendarDays(toDay(to), toDay(from));
}

/** The first Monday after a day; weeks begin on Mondays (ISO 8601). */
export function mondayAfter(date: IsoDate): IsoDate {
  return fromDay(nextMonday(toDay(date)));
}

export function monthOf(date: IsoDate): IsoMonth {
  return date.slice(0, 7) as IsoMonth;
}

export function laterOf(a: IsoDate, b: IsoDate): IsoDate {
  return a > b ? a : b;
}

/** Whether a text is an instant: `2026-11-23T10:05:00.000Z`. */
export function isInstant(text: string): boolean {
  return /^\d{4}-\d{2}-\d{2}T[\d:.]+Z$/.test(text) && !Number.isNaN(Date.parse(text));
}

/** The day an instant (`2026-11-23T10:05:00.000Z`) falls on in UTC. */
export function dayOf(instant: string): IsoDate {
  return isoDate(instant.slice(0, 10));
}

const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'] as const;

/** Short English name of a month by its number, 1 to 12. */
export function monthName(month: number): string {
  return MONTHS[month - 1] ?? '';
}

/** For people: `23 Nov 2026`. */
export function writeDate(date: IsoDate): string {
  return `${Number(date.slice(8, 10))} ${monthName(Number(date.slice(5, 7)))} ${date.slice(0, 4)}`;
}

/** For people, year left out: `23 Nov`. */
export function writeDay(date: IsoDate): string {
  return `${Number(date.slice(8, 10))} ${monthName(Number(date.slice(5, 7)))}`;
}
