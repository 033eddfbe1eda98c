import { BOOK_TABLES, type BookContent, type BookRows, type BookTable, descriptorOf } from '@/core/book/tables';
import type { Refusal } from '@/core/kernel/result';

/** What a check looks at of each table, row by row; rows are not kept. */
export type Looks = { readonly [T in BookTable]?: (row: BookRows[T]) => void };

/** A check on its way through a book: what it has seen so far, in little, and what is wrong once it has seen all. */
export interface Gathering {
  readonly looks: Looks;
  readonly faults: () => readonly Refusal[];
}

/** A check of a whole book that goes through it once, whatever its size. */
export interface Check {
  readonly name: string;
  readonly begin: () => Gathering;
}

/** Something of the book that is not as it should be. */
export const damaged = (path: string, expected: string, found?: string): Refusal => ({
  code: 'damaged',
  path,
  expected,
  ...(found !== undefined && { found }),
});

/** Tables in the order in which a book is gone through: what rows name comes before them, where tables do not name one another. */
export const READING_ORDER: readonly BookTable[] = (() => {
  const order: BookTable[] = [];
  const visit = (table: BookTable, on: readonly BookTable[]) => {
    if (order.includes(table) || on.includes(table)) return;
    for (const { table: other } of descriptorOf(table).references ?? []) visit(other as BookTable, [...on, table]);
    order.push(table);
  };
  for (const table of BOOK_TABLES) visit(table, []);
  return order;
})();

/** Shows a row to a gathering. */
export function show(gathering: Gathering, table: BookTable, row: unknown): void {
  const look = gathering.looks[table] as ((row: unknown) => void) | undefined;
  look?.(row);
}

/** What a check finds in a book that is there as a whole. */
export function faultsIn(check: Check, book: BookContent): readonly Refusal[] {
  const gathering = check.begin();
  for (const table of READING_ORDER) for (const row of book[table]) show(gathering, table, row);
  return gathering.faults();
}
