import type { IsoDate } from '@/core/kernel/date';
import type { Result } from '@/core/kernel/result';
import type { AppendedTable, BookRows, RemovableTable, TruthTable } from './tables';

type RowsOf<Tables extends TruthTable> = { readonly [T in Tables]?: readonly BookRows[T][] };

/** What goes on the audit trail beside who and when. */
export interface AuditNote {
  /** Name of the action; of the one that is performed unless it is given. */
  readonly action?: string;
  /** What it is about, in words: `INV-2026-0142`. */
  readonly subject: string;
  /** Ids of what it concerns, by which the history of an object is found. */
  readonly about?: readonly string[];
  readonly before?: unknown;
  readonly after?: unknown;
}

/** What a decision wants written, all together or not at all. */
export interface Changes {
  /** New rows; one that is there already makes the whole fail. */
  readonly add?: RowsOf<TruthTable>;
  /** New or replaced rows. Journal and tax entries are append-only and not among them. */
  readonly put?: RowsOf<Exclude<TruthTable, AppendedTable>>;
  /** Keys of rows that are taken away. */
  readonly remove?: { readonly [T in RemovableTable]?: readonly string[] };
  /** One event, or several where the parts of an action were joined. Null where a draft is kept while it is typed: that is no business event. */
  readonly audit: AuditNote | readonly AuditNote[] | null;
}

/** What came of an action's pure part: a refusal, or an answer and what to write. */
export type Decision<T> = Result<{ readonly value: T; readonly changes: Changes }>;

/** Everything an action may know of the outside world, passed in so that core stays deterministic. */
export interface Moment {
  /** ISO instant. */
  readonly now: string;
  readonly today: IsoDate;
  /** Name of the person at this browser. */
  readonly operator: string;
  readonly newId: () => string;
}
