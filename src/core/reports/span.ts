import { addDays, addMonths, daysBetween, endOfMonth, type IsoDate } from '@/core/kernel/date';

/** First and last day of a report. */
export interface ReportSpan {
  readonly from: IsoDate;
  readonly until: IsoDate;
}

const isFirst = (day: IsoDate): boolean => day.endsWith('-01');

const monthsBetween = (from: IsoDate, until: IsoDate): number =>
  (Number(until.slice(0, 4)) - Number(from.slice(0, 4))) * 12 +
  Number(until.slice(5, 7)) -
  Number(from.slice(5, 7)) +
  1;

/** As long a time just before: as many whole months where it is whole months, else as many days. */
export function spanBefore({ from, until }: ReportSpan): ReportSpan {
  const last = addDays(from, -1);
  if (isFirst(from) && until === endOfMonth(until))
    return { from: addMonths(from, -monthsBetween(from, until)), until: last };
  return { from: addDays(from, -(daysBetween(from, until) + 1)), until: last };
}
