import { addDays, addMonths, type IsoDate, isIsoDate, isoDate, monthName } from '@/core/kernel/date';
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

/** Last day on which a period of a registration may begin: none begins after its end. */
function lastStart({ until }: Registration, day: IsoDate): IsoDate {
  return until !== '' && until < day ? until : day;
}

/** All periods of a registration from the first it keeps to the one that holds `until`, or its end; oldest first. */
export function spansUntil(registration: Registration, until: IsoDate): readonly Span[] {
  const spans: Span[] = [];
  const last = lastStart(registration, until);
  let span = spanOf(registration.frequency, registration.keptFrom);
  while (span.start <= last) {
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

/** True for a period that begins after the registration ended; it is filed only when something late stands in it. */
export function isAfterEnd({ until }: Pick<Registration, 'until'>, { start }: Span): boolean {
  return until !== '' && start > until;
}

/** `<registration>|<first day>`, the key of a tax period. */
export function periodIdOf(registrationId: string, start: IsoDate): string {
  return `${registrationId}|${start}`;
}

/** First day of the period with this id; null where a document stands in none yet. */
export function startOfPeriod(periodId: string): IsoDate | null {
  const start = periodId.slice(periodId.lastIndexOf('|') + 1);
  return isIsoDate(start) ? start : null;
}

/** Where a document with this tax point is reported. */
export interface Placement {
  readonly span: Span;
  /** Its own period is filed, so it goes to the next open one. */
  readonly late: boolean;
}

/**
 * Null when the tax point lies before the first period that the registration keeps. What comes after
 * its end, such as a credit note, belongs to its last period; once that is filed, to one behind it.
 */
export function placeInPeriod(registration: Registration, taxPoint: IsoDate): Placement | null {
  const { frequency, keptFrom, filedUntil } = registration;
  if (taxPoint < spanOf(frequency, keptFrom).start) return null;
  const day = lastStart(registration, taxPoint);
  const late = filedUntil !== '' && day <= filedUntil;
  return { span: late ? nextToFile(registration) : spanOf(frequency, day), late };
}

/** Short name of a period: `Nov–Dec 2026`, `Nov 2026`, `2026`. */
export function spanName({ start, end }: Span): string {
  const year = start.slice(0, 4);
  const [from, to] = [Number(start.slice(5, 7)), Number(end.slice(5, 7))];
  if (from === to) return `${monthName(from)} ${year}`;
  if (from === 1 && to === 12) return year;
  return `${monthName(from)}–${monthName(to)} ${year}`;
}
