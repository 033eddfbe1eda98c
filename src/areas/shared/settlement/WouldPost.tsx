'use client';

import { minor } from '@/core/kernel/money';
import { showMoney } from '@/core/kernel/show';
import { wordRefusals } from '@/core/wording/refusals';
import type { Action } from '@/store/perform';
import { NoteRow } from '@/ui/Page';
import { useOpenBook } from '../../shell/BookContext';
import { usePreview } from '../../shell/usePreview';

interface WouldPostProps<Input, Value> {
  readonly action: Action<Input, Value>;
  /** What is typed so far; null while it can't be read. */
  readonly input: Input | null;
}

/** What an action would post by what is typed in its slip, or why it would be refused. */
export function WouldPost<Input, Value>({ action, input }: WouldPostProps<Input, Value>) {
  const { accounts, currency } = useOpenBook();
  const planned = usePreview(action, input);
  const lines = planned?.ok ? (planned.value.add?.journalLines ?? []) : [];
  return (
    <section aria-label="Entries" className="mb-3 min-h-[64px] border-rule border-t pt-1.5 text-sm">
      {planned?.ok === false && <p className="text-soft">As it stands: {wordRefusals(planned.refusals)}</p>}
      {planned?.ok && lines.length === 0 && (
        <p className="text-soft">Nothing is posted: both stand at the same rate.</p>
      )}
      {lines.map(({ id, account, amount }) => (
        <NoteRow
          key={id}
          label={`${amount > 0n ? 'Dr' : 'Cr'} ${accounts.find(({ code }) => code === account)?.name ?? account}`}
          figure={showMoney(minor(amount < 0n ? -amount : amount), currency)}
        />
      ))}
    </section>
  );
}
