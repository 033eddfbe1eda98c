import { addDays, addMonths, type IsoDate, isoDate } from '@/core/kernel/date';

/** A fiscal year, both days within it. */
export interface FiscalYear {
  readonly start: IsoDate;
  readonly end: IsoDate;
}

/** That a year was closed: its income and expenses went to retained earnings, and it is locked. */
export interface YearClosing extends FiscalYear {
  /** Its last day: a year is closed once, until it is opened again. */
  readonly id: string;
  readonly entryId: string;
  /** Instant. */
  readonly at: string;
  readonly operator: string;
  /** Each time it was opened again, with why, and the entry that mirrored the closing. */
  readonly reopened: readonly ReopenedYear[];
  /** Whether it stands closed. */
  readonly isClosed: boolean;
}

export interface ReopenedYear {
  readonly at: string;
  readonly operator: string;
  readonly reason: string;
  readonly closingEntryId: string;
  readonly entryId: string;
}

/** The fiscal year that a day lies in. @param startMonth its first month, from 1 */
export function fiscalYearOf(day: IsoDate, startMonth: number): FiscalYear {
  const [year, month] = [Number(day.slice(0, 4)), Number(day.slice(5, 7))];
  const first = isoDate(`${month >= startMonth ? year : year - 1}-${String(startMonth).padStart(2, '0')}-01`);
  return { start: first, end: addDays(addMonths(first, 12), -1) };
}

/** `2026`, or `2026/27` where it is not the year of the calendar. */
export function yearName({ start, end }: FiscalYear): string {
  const [first, last] = [start.slice(0, 4), end.slice(0, 4)];
  return first === last ? first : `${first}/${last.slice(2)}`;
}

/** Every entry that closed a year or opened it again: statements of income pass them over. */
export function closingEntries(closings: readonly YearClosing[]): readonly string[] {
  return closings.flatMap(({ entryId, reopened }) => [
    entryId,
    ...reopened.flatMap((one) => [one.closingEntryId, one.entryId]),
  ]);
}
