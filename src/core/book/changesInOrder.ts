import type { Changes } from './changes';
import { type BookTable, descriptorOf } from './tables';

/** Rows to be written, without their words on the audit trail. */
export type RowChanges = Pick<Changes, 'add' | 'put'>;

/**
 * What is written by steps that were each decided on what those before them made: a row that several moved is as the last
 * left it, and stays new where the first of them added it.
 */
export function changesInOrder(steps: readonly RowChanges[]): Required<RowChanges> {
  const written = new Map<string, { readonly how: 'add' | 'put'; readonly table: BookTable; readonly row: object }>();
  for (const step of steps)
    for (const how of ['add', 'put'] as const)
      for (const [name, rows] of Object.entries(step[how] ?? {})) {
        const table = name as BookTable;
        for (const row of rows) {
          const key = `${table} ${(row as never)[descriptorOf(table).key]}`;
          written.set(key, { how: written.get(key)?.how ?? how, table, row });
        }
      }
  const rowsOf = (wanted: 'add' | 'put') => {
    const tables: Partial<Record<BookTable, object[]>> = {};
    for (const { how, table, row } of written.values()) {
      if (how !== wanted) continue;
      const rows = tables[table] ?? [];
      rows.push(row);
      tables[table] = rows;
    }
    return tables;
  };
  return { add: rowsOf('add') as Required<RowChanges>['add'], put: rowsOf('put') as Required<RowChanges>['put'] };
}
