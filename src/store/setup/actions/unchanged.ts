import type { TruthTable } from '@/core/book/tables';
import { writeCanonical } from '@/core/kernel/canonical';
import { refuse } from '@/core/kernel/result';
import type { Action } from '../../perform';

/**
 * An action on a record that a form began with: refused as stale when the stored record is another one
 * by now, so that the first of two edits is never lost silently. `before` undefined is a new record.
 */
export function unchanged<Input, Value>(
  action: Action<Input, Value>,
  table: TruthTable,
  before: { readonly id: string } | undefined,
): Action<Input, Value> {
  if (before === undefined) return action;
  return {
    name: action.name,
    async decide(db, input, moment) {
      const stored = await db.table(table).get(before.id);
      if (stored === undefined || writeCanonical(stored) !== writeCanonical(before))
        return refuse({ code: 'stale', path: '' });
      return action.decide(db, input, moment);
    },
  };
}
