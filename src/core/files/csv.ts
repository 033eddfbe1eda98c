import Papa from 'papaparse';
import type { CsvRow } from '@/core/book/columns/columns';
import { accept, type Refusal, type Result, refuse } from '@/core/kernel/result';
import type { Wanted } from '@/core/kernel/wanted';

/** Largest CSV text that is read: 20 MiB of characters. */
const LARGEST = 20 * 2 ** 20;

/**
 * Where a spreadsheet would begin to run a formula: at the start of a cell, and behind what some take
 * for the end of one; by the plain signs and the wide ones that some read as the plain.
 */
const FORMULA = /(^|[;\t|\r\n])(\s*)('*)(?=[=+\-@\uFF1D\uFF0B\uFF0D\uFF20])|^(?=[\t\r])/g;
const GUARDED = /(^|[;\t|\r\n])(\s*)'('*)(?=[=+\-@\uFF1D\uFF0B\uFF0D\uFF20])|^'(?=[\t\r])/g;
/** A plain number runs nothing, whatever its sign. */
const NUMBER = /^[+-]?\d+(?:[.,]\d+)?$/;

const guarded = (cell: string): string => (NUMBER.test(cell) ? cell : cell.replace(FORMULA, "$1$2'$3"));
const unguarded = (cell: string): string => cell.replace(GUARDED, '$1$2$3');

/** Records as rows of CSV (RFC 4180), each with its end; cells that could run as a formula are made harmless. */
export function csvRows(rows: readonly (readonly string[])[]): string {
  return `${Papa.unparse(
    rows.map((row) => row.map(guarded)),
    { newline: '\r\n' },
  )}\r\n`;
}

/** The same with heads first. */
export function writeCsv(heads: readonly string[], rows: readonly (readonly string[])[]): string {
  return csvRows([heads, ...rows]);
}

const wrong = (path: string, what: Wanted, found?: string): Refusal => ({
  code: 'invalid',
  path,
  wanted: what,
  ...(found !== undefined && { found }),
});

/** A block of cells as a spreadsheet copies it: apart by tabs, text with line breaks in quotation marks. */
export function readCells(text: string): readonly (readonly string[])[] {
  if (text.length > LARGEST) return [];
  return Papa.parse<string[]>(text, { delimiter: '\t', skipEmptyLines: 'greedy' }).data;
}

/** Reads CSV with these heads in any order; those that are optional may be missing. Refused with row and column where it can't be understood. */
export function readCsv(
  text: string,
  heads: readonly string[],
  optional: readonly string[] = [],
): Result<readonly CsvRow[]> {
  if (text.length > LARGEST) return refuse({ code: 'too-large', path: '', wanted: 'table-of-20-mb' });
  const { data, errors } = Papa.parse<string[]>(text.replace(/^\ufeff/, ''), { skipEmptyLines: 'greedy' });
  const [broken] = errors.filter((error) => error.type === 'Quotes');
  if (broken !== undefined) return refuse(wrong(`row ${(broken.row ?? 0) + 1}`, 'close-quotation-mark'));
  const [first, ...rest] = data;
  const found = (first ?? []).map((head) => head.trim().toLowerCase());
  const present = heads.filter((head) => found.includes(head));
  const missing = heads.filter((head) => !present.includes(head) && !optional.includes(head));
  if (first === undefined || missing.length > 0) return refuse(wrong('row 1', { what: 'heads', heads, missing }));
  const long = rest.findIndex((cells) => cells.length > found.length);
  if (long >= 0) return refuse(wrong(`row ${long + 2}`, { what: 'cells-of-the-head', count: found.length }));
  return accept(
    rest.map((cells, i) => ({
      row: i + 2,
      cells: Object.fromEntries(present.map((head) => [head, unguarded((cells[found.indexOf(head)] ?? '').trim())])),
    })),
  );
}
