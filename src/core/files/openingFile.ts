import type { CsvRow } from '@/core/book/columns/columns';
import { cell } from '@/core/book/columns/columns';
import type { OpeningInput } from '@/core/decisions/sales/opening';
import type { IsoDate } from '@/core/kernel/date';
import { accept, type Refusal, type Result } from '@/core/kernel/result';
import { readTypedDate } from '@/core/parties/terms';
import { readCsv } from './csv';
import { customerCall } from './importTable';

/** Heads of a file of opening invoices; without `due` each is due on its date. */
export const OPENING_HEADS = ['customer', 'number', 'date', 'due', 'amount'] as const;

/** An opening invoice read from a file, with its row; heads are row 1. */
export interface OpeningRow {
  readonly row: number;
  readonly input: OpeningInput;
}

export interface OpeningsRead {
  readonly rows: readonly OpeningRow[];
  /** Path is `row 3, customer`. */
  readonly wrong: readonly Refusal[];
}

function readRow(line: CsvRow, customers: ReadonlyMap<string, string | null>, today: IsoDate): OpeningRow {
  const date = readTypedDate(cell(line, 'date'), today, today) ?? cell(line, 'date');
  const due = cell(line, 'due').trim();
  const called = cell(line, 'customer');
  return {
    row: line.row,
    input: {
      customerId: customers.get(customerCall(called)) ?? '',
      number: cell(line, 'number'),
      date,
      due: due === '' ? date : (readTypedDate(due, today, today) ?? due),
      amount: cell(line, 'amount'),
    },
  };
}

/**
 * Reads opening invoices. `customers` are ids by what a file may call a customer (see `customerCall`), null where several
 * fit. Refused whole where it is no CSV of these heads; rows that say a customer nobody knows, or one number twice, are
 * named in `wrong`.
 */
export function readOpenings(
  text: string,
  customers: ReadonlyMap<string, string | null>,
  today: IsoDate,
): Result<OpeningsRead> {
  const read = readCsv(text, OPENING_HEADS, ['due']);
  if (!read.ok) return read;
  const rows = read.value.map((line) => readRow(line, customers, today));
  const first = new Map<string, number>();
  const wrong = rows.flatMap(({ row, input }, i): readonly Refusal[] => {
    const found = read.value[i]?.cells.customer ?? '';
    if (input.customerId === '')
      return [{ code: 'unknown', path: `row ${row}, customer`, wanted: 'known-customer', found }];
    const key = `${input.customerId} ${input.number.trim()}`;
    const before = first.get(key);
    first.set(key, before ?? row);
    return before === undefined ? [] : [{ code: 'duplicate', path: `row ${row}, number`, found: input.number }];
  });
  return accept({ rows, wrong });
}
