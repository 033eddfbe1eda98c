import type { AuditNote, Changes } from './changes';
import { type BookTable, descriptorOf } from './tables';

/** What one part of an action wants written. */
export interface Part {
  readonly changes: Changes;
  /** Rows of earlier parts that this one was decided on: it may write them again. */
  readonly on?: readonly object[];
  /** Name of the action that the part is, where it stands on the audit trail under its own. */
  readonly action?: string;
}

interface WrittenRow {
  readonly how: 'add' | 'put';
  readonly table: BookTable;
  readonly row: object;
}

const notesOf = ({ changes: { audit }, action }: Part): readonly AuditNote[] =>
  [audit ?? []].flat().map((note) => (action === undefined ? note : { action, ...note }));

/**
 * What the parts of one action want written, as one and in their order. A row may be written by two parts only when the
 * later one was decided on what the earlier one wrote; a new row stays new.
 * @throws RangeError where two parts write, or write and take away, one row without knowing of each other.
 */
export function joinChanges(...parts: readonly Part[]): Changes {
  const written = new Map<string, WrittenRow>();
  const removed = new Map<BookTable, string[]>();
  const collide = (key: string): never => {
    throw new RangeError(`two parts of an action write ${key}`);
  };
  const write = (how: WrittenRow['how'], table: BookTable, row: object, on: readonly object[]) => {
    const id = (row as Readonly<Record<string, string>>)[descriptorOf(table).key] ?? '';
    const key = `${table} ${id}`;
    const before = written.get(key);
    const follows = before !== undefined && how === 'put' && on.includes(before.row);
    if (removed.get(table)?.includes(id) || (before !== undefined && !follows)) collide(key);
    written.set(key, { how: before?.how ?? how, table, row });
  };
  for (const { changes, on = [] } of parts) {
    for (const how of ['add', 'put'] as const)
      for (const [table, rows] of Object.entries(changes[how] ?? {}))
        for (const row of rows) write(how, table as BookTable, row, on);
    for (const [table, keys] of Object.entries(changes.remove ?? {}))
      for (const id of keys) {
        if (written.has(`${table} ${id}`)) collide(`${table} ${id}`);
        removed.set(table as BookTable, [...(removed.get(table as BookTable) ?? []), id]);
      }
  }
  const rowsOf = (wanted: WrittenRow['how']) => {
    const tables: Partial<Record<BookTable, object[]>> = {};
    for (const { how, table, row } of written.values()) {
      if (how !== wanted) continue;
      const rows = tables[table] ?? [];
      rows.push(row);
      tables[table] = rows;
    }
    return tables;
  };
  const notes = parts.flatMap(notesOf);
  return {
    add: rowsOf('add') as NonNullable<Changes['add']>,
    put: rowsOf('put') as NonNullable<Changes['put']>,
    remove: Object.fromEntries(removed),
    audit: notes.length === 0 ? null : notes,
  };
}
