import type { Currency } from '@/core/kernel/currency';
import { type Minor, NOTHING, total } from '@/core/kernel/money';
import type { Behind, ReportAmount, ReportCell, ReportColumn, ReportTable } from './report';

/** A column with what it says of a row. */
export interface ColumnOf<Row> extends ReportColumn {
  readonly of: (row: Row) => ReportCell;
  /** Its amounts add up to something: they do so below. */
  readonly summed?: true;
}

/** What columns of a table are made with. */
export interface Columns<Row> {
  readonly words: (head: string, of: (row: Row) => string) => ColumnOf<Row>;
  /** ISO dates, or nothing. */
  readonly days: (head: string, of: (row: Row) => string) => ColumnOf<Row>;
  /** Amounts of one currency, summed below; an amount of nothing stays empty where `blank` says so. */
  readonly amounts: (
    head: string,
    currency: Currency,
    of: (row: Row) => Minor,
    how?: { readonly blank?: boolean; readonly summed?: boolean },
  ) => ColumnOf<Row>;
}

const columnsFor = <Row>(): Columns<Row> => ({
  words: (head, of) => ({ head, kind: 'words', of }),
  days: (head, of) => ({ head, kind: 'date', of }),
  amounts: (head, currency, of, { blank = false, summed = true } = {}) => ({
    head,
    kind: 'amount',
    of: (row) => {
      const amount = of(row);
      return blank && amount === NOTHING ? '' : { amount, currency };
    },
    ...(summed && { summed }),
  }),
});

export interface TableParts<Row> {
  readonly caption: string;
  readonly rows: readonly Row[];
  readonly keyOf: (row: Row) => string;
  readonly columns: (make: Columns<Row>) => readonly ColumnOf<Row>[];
  readonly behind?: (row: Row) => Behind | undefined;
  readonly nothing: string;
  /** What the sums are called; `Total` unless given. */
  readonly total?: string;
}

/** A table of a report out of its columns, with the sums of those that are summed. */
export function tableOf<Row>(parts: TableParts<Row>): ReportTable {
  const { caption, rows, keyOf, behind, nothing } = parts;
  const columns = parts.columns(columnsFor<Row>());
  const cells = rows.map((row) => columns.map(({ of }) => of(row)));
  const sumOf = (i: number): ReportCell => {
    const found = cells.flatMap((row): readonly ReportAmount[] => {
      const cell = row[i];
      return cell === undefined || typeof cell === 'string' ? [] : [cell];
    });
    const [first] = found;
    return first === undefined ? '' : { amount: total(found.map(({ amount }) => amount)), currency: first.currency };
  };
  return {
    caption,
    columns: columns.map(({ head, kind }) => ({ head, kind })),
    rows: rows.map((row, i) => {
      const at = behind?.(row);
      return { key: keyOf(row), cells: cells[i] ?? [], ...(at !== undefined && { behind: at }) };
    }),
    sums: columns.some(({ summed }) => summed)
      ? columns.map(({ summed }, i) => (summed ? sumOf(i) : i === 0 ? (parts.total ?? 'Total') : ''))
      : null,
    nothing,
  };
}
