'use client';

import { toast } from 'sonner';
import { writeDate } from '@/core/kernel/date';
import { wordRefusals } from '@/core/wording/refusals';
import { goOnReminding } from '@/store/customers/actions/reminders';
import { remindersOf } from '@/store/customers/queries/reminders';
import { Button } from '@/ui/Button';
import { Mark } from '@/ui/Mark';
import { Note } from '@/ui/Page';
import { act, useBook } from '../../shell/book';

const LEVELS = ['', 'First', 'Second', 'Final'] as const;

/** Reminders that told of a document, and what keeps it out of the next one. Nothing before there was any. */
export function RemindersNote({ documentId }: { readonly documentId: string }) {
  const found = useBook((db) => remindersOf(db, documentId), [documentId]);
  if (found === undefined || (found.sent.length === 0 && found.hold === null)) return null;
  const { sent, hold } = found;
  const goOn = async () => {
    const result = await act(goOnReminding, { documentId });
    if (!result.ok) toast.error(wordRefusals(result.refusals));
  };
  return (
    <Note title="Reminders">
      {hold !== null && (
        <p className="mb-1">
          <Mark kind="note" /> {hold.kind === 'dispute' ? 'disputed' : 'payment promised'}
          {hold.until !== '' && `, until ${writeDate(hold.until)}`}
          <span className="block pl-5 text-soft text-sm">
            {hold.words}, by {hold.operator}
          </span>
          <Button weight="quiet" onClick={() => void goOn()}>
            Remind again
          </Button>
        </p>
      )}
      <ul>
        {sent.map(({ id, level, on, mailId }) => (
          <li key={id} className="flex justify-between gap-3 text-sm">
            {LEVELS[level]} reminder, {mailId === '' ? 'on paper' : 'by mail'}
            <time dateTime={on}>{writeDate(on)}</time>
          </li>
        ))}
      </ul>
    </Note>
  );
}
