import Dexie from 'dexie';
import type { Decision, Moment } from '@/core/decisions/changes';
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
  readonly decide: (db: BookDb, input: Input, moment: Moment) => Promise<Decision<Value>>;
}

/** Browser errors that a person can do something about, translated in this one place. */
export function storageRefusal(error: unknown): Refusal | null {
  const name = error instanceof Dexie.DexieError || error instanceof DOMException ? error.name : '';
  const inner = (error as { inner?: { name?: string } } | null)?.inner?.name ?? '';
  if ([name, inner].includes('QuotaExceededError')) return { code: 'storage-full', path: '' };
  if (name === 'DatabaseClosedError' || name === 'InvalidStateError') return { code: 'storage-failed', path: '' };
  return null;
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
    return await db.transaction('rw', db.tables, async (): Promise<Result<Value>> => {
      const decision = await action.decide(db, input, moment);
      if (!decision.ok) return decision;
      await write(db, decision.value.changes, action.name, moment);
      return accept(decision.value.value);
    });
  } catch (error) {
    const refusal = storageRefusal(error);
    if (refusal === null) throw error;
    return refuse(refusal);
  }
}
