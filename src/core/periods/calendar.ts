import { addDays, addMonths, type IsoDate, isoDate, monthName } from '@/core/kernel/date';
import type { Frequency, Registration } from '@/core/tax/registration';

/** A stretch of days that one return covers. */
export interface Span {
  readonly start: IsoDate;
  readonly end: IsoDate;
}

const MONTHS: Readonly<Record<Frequency, number>> = { monthly: 1, 'two-monthly': 2, quarterly: 3, yearly: 12 };

/**
 * The calendar period of a frequency that holds a day. Two-monthly periods begin in January, March,
 * May …: 28 February lies in Jan–Feb, 1 March in Mar–Apr.
 */
export function spanOf(frequency: Frequency, day: IsoDate): Span {
  const months = MONTHS[frequency];
  const month = Number(day.slice(5, 7));
  const first = month - ((month - 1) % months);
  const start = isoDate(`${day.slice(0, 4)}-${String(first).padStart(2, '0')}-01`);
  return { start, end: addDays(addMonths(start, months), -1) };
}

/** All periods of a registration from the first it keeps to the one that holds `until`, oldest first. */
export function spansUntil(registration: Registration, until: IsoDate): readonly Span[] {
  const spans: Span[] = [];
  let span = spanOf(registration.frequency, registration.keptFrom);
  while (span.start <= until) {
    spans.push(span);
    span = spanOf(registration.frequency, addDays(span.end, 1));
  }
  return spans;
}

/** The period a filing must take next: the first one not filed yet. */
export function nextToFile(registration: Registration): Span {
  const { filedUntil, frequency, keptFrom } = registration;
  return spanOf(frequency, filedUntil === '' ? keptFrom : addDays(filedUntil, 1));
}

/** `<registration>|<first day>`, the key of a tax period. */
export function periodIdOf(registrationId: string, start: IsoDate): string {
  return `${registrationId}|${start}`;
}

/** Where a document with this tax point is reported. */
export interface Placement {
  readonly span: Span;
  /** Its own period is filed, so it goes to the next open one. */
  readonly late: boolean;
}

/** Null when the tax point lies before the first period that the registration keeps. */
export function placeInPeriod(registration: Registration, taxPoint: IsoDate): Placement | null {
  if (taxPoint < spanOf(registration.frequency, registration.keptFrom).start) return null;
  const late = registration.filedUntil !== '' && taxPoint <= registration.filedUntil;
  return { span: late ? nextToFile(registration) : spanOf(registration.frequency, taxPoint), late };
}

/** Short name of a period: `Nov–Dec 2026`, `Nov 2026`, `2026`. */
export function spanName({ start, end }: Span): string {
  const year = start.slice(0, 4);
  const [from, to] = [Number(start.slice(5, 7)), Number(end.slice(5, 7))];
  if (from === to) return `${monthName(from)} ${year}`;
  if (from === 1 && to === 12) return year;
  return `${monthName(from)}–${monthName(to)} ${year}`;
}
