'use client';

import { toast } from 'sonner';
import { wordRefusals } from '@/core/wording/refusals';
import { dropBankRule } from '@/store/bank/actions/accounts';
import { allOf } from '@/store/records';
import { Note } from '@/ui/Page';
import { TextButton } from '@/ui/TextButton';
import { act, useBook } from '../shell/book';

async function drop(id: string): Promise<void> {
  const result = await act(dropBankRule, { id });
  if (!result.ok) toast.error(wordRefusals(result.refusals));
}

/** Texts whose lines are booked to an account, each to be forgotten again. */
export function RulesNote() {
  const rules = useBook((db) => allOf(db, 'bankRules'));
  if (rules === undefined || rules.length === 0) return null;
  return (
    <Note title="Rules">
      <ul>
        {rules.map(({ id, contains, direction, account }) => (
          <li key={id} className="flex items-baseline gap-2 border-rule border-b py-1 text-sm">
            <span className="flex-1 break-words">
              “{contains}” {direction === 'out' ? 'out' : 'in'} → {account}
            </span>
            <TextButton aria-label={`Remove rule ${contains}`} className="text-soft" onClick={() => void drop(id)}>
              remove
            </TextButton>
          </li>
        ))}
      </ul>
    </Note>
  );
}
