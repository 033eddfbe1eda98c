import type { Currency } from '@/core/kernel/currency';
import { type IsoDate, isIsoDate, writeDate } from '@/core/kernel/date';
import { type Minor, NOTHING, plus, writeMoney } from '@/core/kernel/money';
import { showMoney } from '@/core/kernel/show';

/* A report as data: screen, paper, CSV and the command line show the same. */

/** An amount of a cell; `signed` for one where being above zero says something. */
export interface ReportAmount {
  readonly amount: Minor;
  readonly currency: Currency;
}

/** Words, an ISO date, or an amount; empty text for nothing. */
export type ReportCell = string | ReportAmount;

/** What is behind a row, for whoever wants to see it. */
export interface Behind {
  readonly kind: 'document' | 'receipt' | 'entry' | 'customer' | 'account';
  readonly id: string;
}

export interface ReportColumn {
  readonly head: string;
  readonly kind: 'words' | 'date' | 'amount';
}

export interface ReportRow {
  /** One of its table. */
  readonly key: string;
  /** One for each column. */
  readonly cells: readonly ReportCell[];
  readonly behind?: Behind;
}

export interface ReportTable {
  readonly caption: string;
  readonly columns: readonly ReportColumn[];
  readonly rows: readonly ReportRow[];
  /** Below the rows, one for each column; null for a table that is not summed. */
  readonly sums: readonly ReportCell[] | null;
  /** What a table without rows says instead. */
  readonly nothing: string;
}

/** Amounts to be looked at rather than read; each stands in the tables too. */
export interface ReportChart {
  /** `bars` side by side for each name; `steps` where each begins at the end of the one before, and the last is their sum. */
  readonly kind: 'bars' | 'steps';
  readonly caption: string;
  readonly names: readonly string[];
  readonly series: readonly { readonly name: string; readonly amounts: readonly Minor[] }[];
}

/** Where each step begins and ends; the last one, their sum, begins at nothing. */
export function stepSpans(amounts: readonly Minor[]): readonly (readonly [Minor, Minor])[] {
  let at = NOTHING;
  return amounts.map((amount, i) => {
    if (i === amounts.length - 1) return [NOTHING, amount];
    const from = at;
    at = plus(at, amount);
    return [from, at];
  });
}

export interface Report {
  readonly title: string;
  /** First and last day; the same day for a report as at one. */
  readonly from: IsoDate;
  readonly until: IsoDate;
  readonly currency: Currency;
  readonly tables: readonly ReportTable[];
  /** Missing where there is nothing to look at. */
  readonly chart?: ReportChart;
  /** Sentences below: what does not add up, and where to look. */
  readonly notes: readonly string[];
}

/** A cell for people: amounts with their code where it is not that of the report. */
export function shownCell(cell: ReportCell, { kind }: ReportColumn, currency: Currency): string {
  if (typeof cell !== 'string')
    return `${showMoney(cell.amount, cell.currency)}${cell.currency === currency ? '' : ` ${cell.currency}`}`;
  return kind === 'date' && isIsoDate(cell) ? writeDate(cell) : cell;
}

/**
 * A table as heads and cells for a CSV file or a program: plain decimals, ISO dates. A column whose amounts are in other
 * currencies than the report's has one with their codes beside it.
 */
export function plainTable(
  { columns, rows, sums }: ReportTable,
  currency: Currency,
): { readonly heads: readonly string[]; readonly rows: readonly (readonly string[])[] } {
  const all = [...rows.map(({ cells }) => cells), ...(sums === null ? [] : [sums])];
  const codeOf = (cell: ReportCell | undefined) =>
    cell === undefined || typeof cell === 'string' ? '' : cell.currency;
  const foreign = columns.map((_, i) => all.some((cells) => ![currency, ''].includes(codeOf(cells[i]))));
  const plain = (cell: ReportCell) => (typeof cell === 'string' ? cell : writeMoney(cell.amount, cell.currency));
  return {
    heads: columns.flatMap(({ head }, i) => (foreign[i] ? [head, `${head} currency`] : [head])),
    rows: all.map((cells) => cells.flatMap((cell, i) => (foreign[i] ? [plain(cell), codeOf(cell)] : [plain(cell)]))),
  };
}
