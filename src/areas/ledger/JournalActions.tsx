'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { toast } from 'sonner';
import { addDays, endOfMonth, writeDate } from '@/core/kernel/date';
import type { JournalEntry } from '@/core/ledger/entry';
import { takeBackJournal } from '@/store/ledger/actions/writeJournal';
import { Button } from '@/ui/Button';
import { Dialog } from '@/ui/Dialog';
import Link from '@/ui/Link';
import { Margin, Note } from '@/ui/Page';
import { Attachments } from '../shared/Attachments';
import { DateField } from '../shared/DateField';
import { SlipFoot } from '../shared/FormFoot';
import { typedDay } from '../shared/typedDay';
import { useActionForm } from '../shared/useActionForm';
import { act } from '../shell/book';
import { routes } from '../shell/routes';

/** What can be done with a manual journal, and the files that are kept with it. */
export function JournalActions({ entry }: { readonly entry: JournalEntry }) {
  const [takingBack, setTakingBack] = useState(false);
  return (
    <Margin>
      <Note title="This journal">
        <p className="mb-1">
          <Link href={routes.journalLike(entry.id)} className="underline decoration-rule underline-offset-4">
            Write it again
          </Link>
        </p>
        <Button weight="quiet" onClick={() => setTakingBack(true)}>
          Take it back…
        </Button>
      </Note>
      <Note title="Files">
        <Attachments ownerId={entry.id} />
      </Note>
      {takingBack && <TakeBackDialog entry={entry} onClose={() => setTakingBack(false)} />}
    </Margin>
  );
}

function TakeBackDialog({ entry, onClose }: { readonly entry: JournalEntry; readonly onClose: () => void }) {
  const router = useRouter();
  const { submit, field, general, busy, isDirty } = useActionForm({
    initial: { date: writeDate(addDays(endOfMonth(entry.date), 1)) },
    run: ({ date }) => act(takeBackJournal, { entryId: entry.id, date: typedDay(date) }),
    onDone: (_, { id }) => {
      toast('The journal is taken back');
      router.push(routes.entry(id));
    },
  });
  return (
    <Dialog
      unsaved={isDirty}
      open
      onClose={onClose}
      title="Take the journal back"
      description="Another journal with the sides exchanged is posted on the day you choose. Both stay in the ledger."
    >
      <form onSubmit={submit}>
        <DateField label="On" autoFocus {...field('date')} />
        <SlipFoot label="Post the reversal" busy={busy} general={general} leave="Not now" onClose={onClose} />
      </form>
    </Dialog>
  );
}
