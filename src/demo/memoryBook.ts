import type { Changes, Decision, Moment } from '@/core/book/changes';
import type { AuditEvent } from '@/core/book/rows';
import { BOOK_TABLES, type BookContent, type BookRows, type BookTable, descriptorOf } from '@/core/book/tables';

type Row = Readonly<Record<string, unknown>>;

/** A book without a database: takes what decisions want written, and is then packed as a file. For making large books. */
export class MemoryBook {
  private readonly tables = new Map<BookTable, Map<string, Row>>(BOOK_TABLES.map((name) => [name, new Map()]));

  /** Writes what was decided, with its events on the audit trail. @throws Error when it was refused. */
  take<T>(decision: Decision<T>, action: string, { now: at, operator, newId }: Moment): T {
    if (!decision.ok) throw new Error(JSON.stringify(decision.refusals));
    const { changes, value } = decision.value;
    this.write(changes);
    for (const note of [changes.audit ?? []].flat()) {
      const event: AuditEvent = { id: newId(), at, operator, action, ...note };
      this.table('audit').set(event.id, event as unknown as Row);
    }
    return value;
  }

  private table(name: BookTable): Map<string, Row> {
    const rows = this.tables.get(name);
    if (rows === undefined) throw new Error(`no table ${name}`);
    return rows;
  }

  private write({ add = {}, put = {}, remove = {} }: Changes): void {
    for (const changed of [add, put])
      for (const [name, rows] of Object.entries(changed) as unknown as [BookTable, readonly Row[]][]) {
        const { key } = descriptorOf(name);
        for (const row of rows) this.table(name).set(String(row[key]), row);
      }
    for (const [name, keys] of Object.entries(remove) as [BookTable, readonly string[]][])
      for (const key of keys) this.table(name).delete(key);
  }

  rows<T extends BookTable>(name: T): BookRows[T][] {
    return [...this.table(name).values()] as unknown as BookRows[T][];
  }

  row<T extends BookTable>(name: T, id: string): BookRows[T] | undefined {
    return this.table(name).get(id) as unknown as BookRows[T] | undefined;
  }

  content(): BookContent {
    return Object.fromEntries(BOOK_TABLES.map((name) => [name, this.rows(name)])) as unknown as BookContent;
  }
}
