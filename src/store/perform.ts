import Dexie from 'dexie';
import type { Changes, Decision, Moment } from '@/core/book/changes';
import type { Book } from '@/core/book/rows';
import type { BookTable } from '@/core/book/tables';
import type { IsoDate } from '@/core/kernel/date';
import { accept, type Refusal, type Result, refuse } from '@/core/kernel/result';
import type { BookDb } from './schema';
import { write } from './write';

/**
 * A business action: loads what it needs and lets core decide. It runs inside the transaction that
 * writes its changes, so it may await nothing but the database.
 */
export interface Action<Input, Value> {
  /** Goes on the audit trail. */
  readonly name: string;
  /** Tables that it reads and writes: no other are locked meanwhile. All of the book unless given. */
  readonly touches?: readonly BookTable[];
  readonly decide: (db: BookDb, input: Input, moment: Moment) => Promise<Decision<Value>>;
}

/** Errors of the database that a fault in the program makes, not the browser: rows that can't be what they are. */
const PROGRAM_FAULTS = new Set(['ConstraintError', 'BulkError', 'DataError', 'SchemaError', 'NotFoundError']);

/** Errors of the browser, translated in this one place; null for a fault in the program. */
export function storageRefusal(error: unknown): Refusal | null {
  const known = error instanceof Dexie.DexieError || error instanceof DOMException;
  const inner = (error as { inner?: { name?: string } } | null)?.inner?.name ?? '';
  const names = [known ? error.name : '', inner];
  if (names.includes('QuotaExceededError')) return { code: 'storage-full', path: '' };
  if (names.includes('VersionError')) return { code: 'newer-book', path: '' };
  if (!known || PROGRAM_FAULTS.has(error.name)) return null;
  return { code: 'storage-failed', path: '', found: error.name };
}

/** First day that changes post on; undefined where they post nothing. Closing a year and opening it again are the lock itself. */
function firstPosted({ add }: Changes): IsoDate | undefined {
  return (add?.journal ?? []).flatMap(({ kind, date }) => (kind === 'closing' ? [] : [date])).sort()[0];
}

/** Why nothing may be posted on a day; null where it may. */
function lockRefusal(book: Book | undefined, day: IsoDate): Refusal | null {
  const until = book?.lockedUntil ?? '';
  return until !== '' && day <= until ? { code: 'locked-day', path: '', day, until } : null;
}

/**
 * Runs an action in one transaction: load, decide, write, or nothing at all. A refusal comes back as
 * a value; a fault in the program is thrown after the transaction was undone.
 */
export async function perform<Input, Value>(
  db: BookDb,
  action: Action<Input, Value>,
  input: Input,
  moment: Moment,
): Promise<Result<Value>> {
  try {
    const tables = action.touches?.map((name) => db.table(name)) ?? db.tables;
    return await db.transaction('rw', tables, async (): Promise<Result<Value>> => {
      const decision = await action.decide(db, input, moment);
      if (!decision.ok) return decision;
      const day = firstPosted(decision.value.changes);
      const locked = day === undefined ? null : lockRefusal(await db.book.get('book'), day);
      if (locked !== null) return refuse(locked);
      await write(db, decision.value.changes, action.name, moment);
      return accept(decision.value.value);
    });
  } catch (error) {
    const refusal = storageRefusal(error);
    if (refusal === null) throw error;
    return refuse(refusal);
  }
}

/** What an action would write, or why it would not; nothing is written. For margins that show entries before they are posted. */
export async function preview<Input, Value>(
  db: BookDb,
  action: Action<Input, Value>,
  input: Input,
  moment: Moment,
): Promise<Result<Changes>> {
  return db.transaction('r', db.tables, async (): Promise<Result<Changes>> => {
    const decision = await action.decide(db, input, moment);
    if (!decision.ok) return decision;
    const day = firstPosted(decision.value.changes);
    const locked = day === undefined ? null : lockRefusal(await db.book.get('book'), day);
    return locked === null ? accept(decision.value.changes) : refuse(locked);
  });
}
