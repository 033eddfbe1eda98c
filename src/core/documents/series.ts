import type { IsoDate } from '@/core/kernel/date';
import type { DocumentKind } from './content';

/** A run of document numbers without gaps, and the end of its seal chain. */
export interface Series {
  readonly id: DocumentKind | 'receipt';
  readonly prefix: string;
  /** Least number of digits. */
  readonly digits: number;
  /** Next number by year of issue; a year that is not there begins at 1. */
  readonly next: Readonly<Record<string, number>>;
  /** Seal of the newest document, or empty. */
  readonly lastSeal: string;
  /** Issue date of the newest document, or empty. */
  readonly lastDate: IsoDate | '';
}

/** The number a document of this day would get: `INV-2026-0142`. Counting begins anew each year. */
export function nextNumber(series: Series, issueDate: IsoDate): string {
  const year = issueDate.slice(0, 4);
  return `${series.prefix}-${year}-${String(series.next[year] ?? 1).padStart(series.digits, '0')}`;
}

/** The series after that number was used. `seal` is the document's, or empty for unsealed kinds. */
export function advance(series: Series, issueDate: IsoDate, seal: string): Series {
  const year = issueDate.slice(0, 4);
  return {
    ...series,
    next: { ...series.next, [year]: (series.next[year] ?? 1) + 1 },
    lastSeal: seal,
    lastDate: issueDate,
  };
}

export const FIRST_SERIES: readonly Series[] = [
  { id: 'invoice', prefix: 'INV', digits: 4, next: {}, lastSeal: '', lastDate: '' },
  { id: 'credit-note', prefix: 'CN', digits: 4, next: {}, lastSeal: '', lastDate: '' },
  { id: 'receipt', prefix: 'REC', digits: 4, next: {}, lastSeal: '', lastDate: '' },
];
