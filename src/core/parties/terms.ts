import {
  addDays,
  addMonths,
  daysBetween,
  endOfMonth,
  type IsoDate,
  isIsoDate,
  isoDate,
  monthOf,
} from '@/core/kernel/date';
import { type Decimal, isDecimal, ratioOf } from '@/core/kernel/decimal';
import { compare, sumRatios, whole } from '@/core/kernel/ratio';

const OFFSET = /^(?:(\d{1,3})([dwm])|eom(?:\+(\d{1,3})d)?|day ?(\d{1,2}))$/i;
/** Other ways to say days: `+14`, `net 30`, `30 days`. */
const IN_DAYS = /^(?:\+|net ?)(\d{1,3})(?: ?d(?:ays)?)?$|^(\d{1,3}) days$/i;
/** `60d eom`: the end of the month that many days on. */
const DAYS_TO_MONTH_END = /^(\d{1,3})d? ?eom$/i;
const PART = /^(\d{1,3}(?:\.\d{1,4})?) ?% +(.+)$/;

/** What terms say, counted from an issue date. */
export interface ReadTerms {
  /** Last day by which all is to be paid. */
  readonly dueDate: IsoDate;
  /** Empty when all is due at once. */
  readonly instalments: readonly { readonly percent: Decimal; readonly due: IsoDate }[];
  readonly settlement: { readonly percent: Decimal; readonly until: IsoDate } | null;
}

/** `2% 10d` as percent and day; a day may stand in place of the offset. */
function readPart(from: IsoDate, text: string): { readonly percent: Decimal; readonly due: IsoDate } | null {
  const [, percent = '', when = ''] = PART.exec(text.trim()) ?? [];
  const due = isIsoDate(when) ? when : offsetFrom(from, when);
  return due === null || !isDecimal(percent) || ratioOf(percent).n === 0n ? null : { percent, due };
}

/**
 * Reads terms: a day or an offset from the issue date (`30d`, `2w`, `1m`, `eom+10d`, `day 15` of next
 * month); instalments that make 100 % (`30% 0d + 70% 30d`); behind a comma a discount for paying
 * early (`30d, 2% 10d`). Null when the text says nothing of the kind.
 */
export function readTerms(from: IsoDate, text: string): ReadTerms | null {
  const [body = '', early, ...more] = text.split(',').map((part) => part.trim());
  if (more.length > 0) return null;
  const discount = early === undefined ? null : readPart(from, early);
  if (early !== undefined && (discount === null || compare(ratioOf(discount.percent), whole(100n)) >= 0)) return null;
  const settlement = discount === null ? null : { percent: discount.percent, until: discount.due };
  const single = isIsoDate(body) ? body : offsetFrom(from, body);
  if (single !== null) return { dueDate: single, instalments: [], settlement };
  const parts = body.split(/ \+ /).map((part) => readPart(from, part));
  const instalments = parts.flatMap((part) => (part === null ? [] : [part]));
  const last = instalments.at(-1);
  if (last === undefined || instalments.length !== parts.length) return null;
  if (compare(sumRatios(instalments.map((part) => ratioOf(part.percent))), whole(100n)) !== 0) return null;
  if (instalments.some((part, i) => i > 0 && part.due < (instalments[i - 1]?.due ?? part.due))) return null;
  return { dueDate: last.due, instalments, settlement };
}

/**
 * Terms that say, from the issue date, what a document says: the usual ones where they give the same days, else days counted.
 * @param usual terms of the customer.
 */
export function termsSaying(said: ReadTerms, issueDate: IsoDate, usual: string): string {
  const given = isTerms(usual) ? readTerms(issueDate, usual) : null;
  if (given !== null && inDays(given, issueDate) === inDays(said, issueDate)) return usual;
  const counted = inDays(said, issueDate);
  return isTerms(counted) ? counted : usual;
}

/** The days of terms as offsets: `30% 0d + 70% 30d, 2% 10d`. */
function inDays({ dueDate, instalments, settlement }: ReadTerms, from: IsoDate): string {
  const offset = (due: IsoDate) => `${daysBetween(from, due)}d`;
  const parts = instalments.map(({ percent, due }) => `${percent}% ${offset(due)}`);
  const body = parts.length === 0 ? offset(dueDate) : parts.join(' + ');
  return settlement === null ? body : `${body}, ${settlement.percent}% ${offset(settlement.until)}`;
}

/** True for terms that count from the issue date: `14d`, `30% 0d + 70% 30d`, `30d, 2% 10d`. */
export function isTerms(text: unknown): text is string {
  return typeof text === 'string' && !isIsoDate(text.trim()) && readTerms(isoDate('2000-01-01'), text) !== null;
}

/**
 * The day an offset points to, counted from `from`. `1m` from 31 January is the last day of
 * February; `eom+10d` is ten days after the month's last day, `60d eom` the end of the month sixty days on; `day 15` is
 * the 15th of next month, or that month's last day where it has none. Null when it is not an offset.
 */
export function offsetFrom(from: IsoDate, text: string): IsoDate | null {
  const typed = text.trim();
  const [, plain, spelled] = IN_DAYS.exec(typed) ?? [];
  const days = plain ?? spelled;
  if (days !== undefined) return addDays(from, Number(days));
  const [, toMonthEnd] = DAYS_TO_MONTH_END.exec(typed) ?? [];
  if (toMonthEnd !== undefined) return endOfMonth(addDays(from, Number(toMonthEnd)));
  const match = OFFSET.exec(typed);
  if (!match) return null;
  const [, count, unit, after, day] = match;
  if (day !== undefined) {
    const next = endOfMonth(addMonths(from, 1));
    const wanted = `${next.slice(0, 8)}${day.padStart(2, '0')}`;
    return Number(day) === 0 || Number(day) > 31 ? null : isIsoDate(wanted) ? wanted : next;
  }
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

/** A bare day: of this month, or of the next one that has it. `31` typed in February is 31 March. */
function readBareDay(text: string, today: IsoDate): IsoDate | null {
  if (!/^\d{1,2}$/.test(text)) return null;
  const day = text.padStart(2, '0');
  for (let months = 0; months <= 2; months++) {
    const date = `${monthOf(addMonths(isoDate(`${today.slice(0, 8)}01`), months))}-${day}`;
    if (isIsoDate(date)) return date;
  }
  return null;
}

/** Local short forms, day first: `23/11`, `2311`, `23.11.26`, `23 nov`, `23nov 2026`. */
function readShortForm(text: string, today: IsoDate): IsoDate | null {
  const match =
    /^(\d{1,2})(?:[\s./-]+(\d{1,2})|[\s./-]*([a-z]{3,9}))(?:[\s./-]+(\d{2}|\d{4}))?$/.exec(text) ??
    /^(\d{2})(\d{2})$/.exec(text);
  if (!match) return null;
  const [, day = '', number, word, year] = match;
  const month = number ? Number(number) : MONTH_WORDS.indexOf((word ?? '').slice(0, 3)) + 1;
  const fullYear = year === undefined ? today.slice(0, 4) : year.length === 2 ? `20${year}` : year;
  const date = `${fullYear}-${String(month).padStart(2, '0')}-${day.padStart(2, '0')}`;
  return isIsoDate(date) ? date : null;
}

const A_SUNDAY = isoDate('1900-01-07');
const WEEKDAYS = ['sun', 'mon', 'tue', 'wed', 'thu', 'fri', 'sat'];

/** `tomorrow`, `yesterday`, or the next day of a name (`mon`, `Friday`), which is never today. */
function readDayWord(text: string, today: IsoDate): IsoDate | null {
  if (text === 'tomorrow') return addDays(today, 1);
  if (text === 'yesterday') return addDays(today, -1);
  const at = WEEKDAYS.indexOf(text.slice(0, 3));
  if (at < 0 || !/^(?:sun|mon|tues?|wed(?:nes)?|thu(?:rs?)?|fri|sat(?:ur)?)(?:day)?$/.test(text)) return null;
  const now = daysBetween(A_SUNDAY, today) % 7;
  return addDays(today, (at - now + 7) % 7 || 7);
}

/**
 * Reads a day as it is typed: `today`, `tomorrow`, `mon`, an ISO date, a day of the month, a local short form, or an offset
 * from the issue date. Null when it is none of these.
 */
export function readTypedDate(text: string, today: IsoDate, issueDate: IsoDate): IsoDate | null {
  const typed = text.trim().toLowerCase();
  if (typed === 'today') return today;
  if (isIsoDate(typed)) return isoDate(typed);
  return (
    readDayWord(typed, today) ??
    offsetFrom(issueDate, typed) ??
    readBareDay(typed, today) ??
    readShortForm(typed, today)
  );
}
