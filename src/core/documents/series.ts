import * as yup from 'yup';
import type { IsoDate } from '@/core/kernel/date';
import { neededText, optionalText } from '@/core/kernel/validate';
import { wanted } from '@/core/kernel/wanted';
import type { DocumentKind } from './kinds';

export type SeriesKind = DocumentKind | 'receipt' | 'refund';

/** A run of document numbers without gaps, and the end of its seal chain. */
export interface Series {
  readonly id: string;
  readonly kind: SeriesKind;
  /** Registration whose documents it numbers; empty for all that have none of their own. */
  readonly registrationId: string;
  readonly prefix: string;
  /** Least number of digits. */
  readonly digits: number;
  /** Counting begins anew each year, and the year stands in the number. */
  readonly yearly: boolean;
  /** The very first number. */
  readonly start: number;
  /** Year that it is the first number of, in a series that counts anew each year; missing before version 5. */
  readonly startYear?: string;
  /** Next number by year of issue, or under `all`; a later year that is not there begins at 1. */
  readonly next: Readonly<Record<string, number>>;
  /** Documents numbered so far. */
  readonly count: number;
  /** Seal of the newest document, or empty. */
  readonly lastSeal: string;
  /** Issue date of the newest document, or empty. */
  readonly lastDate: IsoDate | '';
}

/** What of a series the bookkeeper sets. */
export const seriesSchema = yup.object({
  id: neededText('give-id'),
  registrationId: optionalText(60),
  prefix: neededText('give-prefix', 12).matches(
    /^[A-Za-z0-9]+(?:[-/][A-Za-z0-9]+)*$/,
    wanted('prefix-of-letters-and-digits'),
  ),
  digits: yup.number().integer().min(1, wanted('one-digit-at-least')).max(9, wanted('nine-digits-at-most')).defined(),
  yearly: yup.boolean().defined(),
  start: yup
    .number()
    .integer(wanted('give-whole-number'))
    .min(1, wanted('first-number-from-1'))
    .max(999_999_999, wanted('first-number-of-nine-digits'))
    .defined(),
});

function yearKey(series: Series, issueDate: IsoDate): string {
  return series.yearly ? issueDate.slice(0, 4) : 'all';
}

function counter(series: Series, issueDate: IsoDate): number {
  const key = yearKey(series, issueDate);
  const { startYear = '' } = series;
  const begins = startYear === '' || !series.yearly ? series.count === 0 : key === startYear;
  return series.next[key] ?? (begins ? series.start : 1);
}

/** The number a document of this day would get: `INV-2026-0142`. */
export function nextNumber(series: Series, issueDate: IsoDate): string {
  const year = series.yearly ? `${issueDate.slice(0, 4)}-` : '';
  return `${series.prefix}-${year}${String(counter(series, issueDate)).padStart(series.digits, '0')}`;
}

/** The series after that number was used. `seal` is the document's, or empty for unsealed kinds. */
export function advance(series: Series, issueDate: IsoDate, seal: string): Series {
  return {
    ...series,
    next: { ...series.next, [yearKey(series, issueDate)]: counter(series, issueDate) + 1 },
    count: series.count + 1,
    lastSeal: seal,
    lastDate: issueDate,
  };
}

/** The series after a document that takes no number of its own, such as a later version of a quote. */
export function sealedOnly(series: Series, issueDate: IsoDate, seal: string): Series {
  return { ...series, count: series.count + 1, lastSeal: seal, lastDate: issueDate };
}

/** The series that numbers documents of a kind under a registration: its own, else the common one. */
export function seriesFor(all: readonly Series[], kind: SeriesKind, registrationId: string): Series | undefined {
  const ofKind = all.filter((series) => series.kind === kind);
  return ofKind.find((s) => s.registrationId === registrationId) ?? ofKind.find((s) => s.registrationId === '');
}

/** A series of a kind that has numbered nothing yet. */
export function newSeries(kind: SeriesKind, prefix: string, over: Partial<Series> = {}): Series {
  return {
    id: kind,
    kind,
    registrationId: '',
    prefix,
    digits: 4,
    yearly: true,
    start: 1,
    next: {},
    count: 0,
    lastSeal: '',
    lastDate: '',
    ...over,
  };
}

export const FIRST_SERIES: readonly Series[] = [
  newSeries('quote', 'QUO'),
  newSeries('invoice', 'INV'),
  newSeries('credit-note', 'CN'),
  newSeries('takings', 'TK'),
  newSeries('opening', 'OB'),
  newSeries('receipt', 'REC'),
  newSeries('refund', 'REF'),
];
