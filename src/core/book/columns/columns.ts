import { grouped } from '@/core/kernel/grouped';

/** A row of a read CSV with its line in the file, heads being line 1. */
export interface CsvRow {
  readonly row: number;
  readonly cells: Readonly<Record<string, string>>;
}

/** A record read from a file, with the rows it came from. */
export interface ReadRecord<T> {
  readonly value: T;
  readonly rows: readonly number[];
}

/** How the records of a table go out to CSV and come in from it. */
export interface Columns<T> {
  readonly title: string;
  readonly heads: readonly string[];
  /** Heads that a file may lack; what they say of a record that is known stays then. */
  readonly optional?: readonly string[];
  readonly write: (record: T) => readonly (readonly string[])[];
  /** `known` finds the record of the book that a row speaks of. */
  readonly read: (rows: readonly CsvRow[], known: (id: string) => T | undefined) => readonly ReadRecord<T>[];
  /** An id may be left out: it is made from the name. */
  readonly idFromName?: true;
  /** Heads that all rows of one record have to agree in, where it may have several. */
  readonly agreed?: readonly string[];
  /** Column that a path of a refused record stands in. */
  readonly columnOf: (path: string) => string;
}

export const cell = (row: CsvRow, head: string): string => row.cells[head] ?? '';

/** The cell where the file has its column, else what was known before. */
export const cellOr = (row: CsvRow, head: string, before: string | undefined): string =>
  row.cells[head] ?? before ?? '';

/** `rates[0].percent` → `percent`. */
export const last = (path: string): string => path.replace(/^.*\./, '').replace(/\[\d+\]$/, '');

/** Rows of one record, by the column that names it. */
export const byId = (rows: readonly CsvRow[], head: string) => [...grouped(rows, (row) => cell(row, head))];
