import type { IsoDate } from '@/core/kernel/date';
import { type Minor, NOTHING, plus } from '@/core/kernel/money';
import type { Category } from '@/core/tax/calcTypes';
import type { TaxEntry } from './taxEntry';

/** Kept balance of one code in one period; moves with every tax entry. */
export interface TaxBalance {
  readonly periodId: string;
  readonly code: string;
  /** Rate of the entries, since a code may change its rate inside a period. */
  readonly percent: string;
  readonly codeName: string;
  readonly category: Category;
  readonly base: Minor;
  readonly tax: Minor;
  readonly entries: number;
  readonly lateEntries: number;
}

/** The return of a period: one row for each code and rate, and the sums. */
export interface TaxReturn {
  readonly rows: readonly TaxBalance[];
  readonly base: Minor;
  readonly tax: Minor;
}

/** A period's row in the book once something belongs to it or it was filed. */
export interface TaxPeriod {
  readonly id: string;
  readonly registrationId: string;
  readonly start: IsoDate;
  readonly end: IsoDate;
  /** Null while open. */
  readonly filed: Filing | null;
}

export interface Filing {
  readonly at: string;
  readonly operator: string;
  readonly entryId: string;
  readonly figures: TaxReturn;
  /** Why it was filed in spite of differences; empty when the proof held. */
  readonly note: string;
}

/** The key that groups entries into a row of the return. */
export function rowKey(row: Pick<TaxEntry, 'code' | 'percent'>): string {
  return `${row.code}|${row.percent}`;
}

/** Adds entries to the balances of their period and code. Entries must all be of one period. */
export function addToBalances(balances: readonly TaxBalance[], entries: readonly TaxEntry[]): readonly TaxBalance[] {
  const rows = new Map(balances.map((row) => [rowKey(row), row]));
  for (const entry of entries) {
    const { periodId, code, percent, codeName, category } = entry;
    const row = rows.get(rowKey(entry)) ?? {
      periodId,
      code,
      percent,
      codeName,
      category,
      base: NOTHING,
      tax: NOTHING,
      entries: 0,
      lateEntries: 0,
    };
    rows.set(rowKey(entry), {
      ...row,
      base: plus(row.base, entry.base),
      tax: plus(row.tax, entry.tax),
      entries: row.entries + 1,
      lateEntries: row.lateEntries + (entry.late ? 1 : 0),
    });
  }
  return [...rows.values()];
}

/** The return from the balances of a period, rows by code and rate. */
export function returnOf(balances: readonly TaxBalance[]): TaxReturn {
  const rows = [...balances].sort((a, b) => (rowKey(a) < rowKey(b) ? -1 : 1));
  return {
    rows,
    base: rows.reduce((sum, row) => plus(sum, row.base), NOTHING),
    tax: rows.reduce((sum, row) => plus(sum, row.tax), NOTHING),
  };
}
