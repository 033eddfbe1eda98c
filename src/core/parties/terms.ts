import { addDays, addMonths, endOfMonth, type IsoDate, isIsoDate, isoDate } from '@/core/kernel/date';

const OFFSET = /^(?:(\d{1,3})([dwm])|eom(?:\+(\d{1,3})d)?)$/i;

/** True for an offset from the issue date: `14d`, `2w`, `1m`, `eom`, `eom+10d`. */
export function isTerms(text: unknown): text is string {
  return typeof text === 'string' && OFFSET.test(text.trim());
}

/**
 * The day an offset points to, counted from `from`. `1m` from 31 January is the last day of
 * February; `eom+10d` is ten days after the month's last day. Null when it is not an offset.
 */
export function offsetFrom(from: IsoDate, text: string): IsoDate | null {
  const match = OFFSET.exec(text.trim());
  if (!match) return null;
  const [, count, unit, after] = match;
  if (count === undefined || unit === undefined) return addDays(endOfMonth(from), Number(after ?? 0));
  const n = Number(count);
  switch (unit.toLowerCase()) {
    case 'd':
      return addDays(from, n);
    case 'w':
      return addDays(from, 7 * n);
    default:
      return addMonths(from, n);
  }
}

const MONTH_WORDS = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec'];

/** Local short forms, day first: `23/11`, `23.11.26`, `23 nov`, `23 nov 2026`. */
function readShortForm(text: string, today: IsoDate): IsoDate | null {
  const match = /^(\d{1,2})[\s./-]*(?:(\d{1,2})|([a-z]{3,9}))(?:[\s./-]+(\d{2}|\d{4}))?$/.exec(text);
  if (!match) return null;
  const [, day = '', number, word, year] = match;
  const month = number ? Number(number) : MONTH_WORDS.indexOf((word ?? '').slice(0, 3)) + 1;
  const fullYear = year === undefined ? today.slice(0, 4) : year.length === 2 ? `20${year}` : year;
  const date = `${fullYear}-${String(month).padStart(2, '0')}-${day.padStart(2, '0')}`;
  return isIsoDate(date) ? date : null;
}

/**
 * Reads a day as it is typed: `today`, an ISO date, a local short form, or an offset from the issue
 * date. Null when it is none of these.
 */
export function readTypedDate(text: string, today: IsoDate, issueDate: IsoDate): IsoDate | null {
  const typed = text.trim().toLowerCase();
  if (typed === 'today') return today;
  if (isIsoDate(typed)) return isoDate(typed);
  return offsetFrom(issueDate, typed) ?? readShortForm(typed, today);
}
