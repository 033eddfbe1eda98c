'use client';

import { useState } from 'react';
import { toast } from 'sonner';
import type { Mail } from '@/core/delivery/mail';
import { dayOf, writeDay } from '@/core/kernel/date';
import { wordRefusals } from '@/core/wording/refusals';
import { sendMailAgain, setMailAside } from '@/store/delivery/actions/mail';
import { Mark } from '@/ui/Mark';
import { Note } from '@/ui/Page';
import { TextButton } from '@/ui/TextButton';
import { act } from '../../shell/book';
import { writeAgain } from '../../shell/delivery/mailing';
import { WordDayDialog } from '../WordDayDialog';
import { ComposeDialog } from './ComposeDialog';
import { MailDialog } from './MailDialog';
import { mailMark, mailNeed } from './mailMark';

/** Where a message stands, and what can be done about it. */
export function MailState({ mail }: { readonly mail: Mail }) {
  const [asking, setAsking] = useState<'aside' | 'again' | 'see' | null>(null);
  const { id, to, phase, receipt, about, queuedAt } = mail;
  const mark = mailMark(mail);
  const need = mailNeed(mail);
  const waits = receipt === null && phase !== 'closed';
  const again = async () => {
    const result = await act(sendMailAgain, { id });
    if (!result.ok) toast.error(wordRefusals(result.refusals));
  };
  return (
    <>
      <p className="flex gap-1.5" aria-live="polite">
        <Mark kind={mark.kind} />
        <span className="min-w-0 flex-1">
          {mark.word} <span className="break-all text-soft text-sm">to {to.join(', ')}</span>
        </span>
        <time dateTime={queuedAt} className="text-sm">
          {writeDay(dayOf(queuedAt))}
        </time>
      </p>
      {(phase === 'asks' || mark.kind === 'warning') && need !== '' && (
        <p className="break-words text-soft text-sm">{need}</p>
      )}
      <p className="mb-2 flex flex-wrap gap-x-3 text-sm">
        {waits && <TextButton onClick={() => void again()}>Try now</TextButton>}
        {phase === 'asks' && <TextButton onClick={() => setAsking('again')}>Send again…</TextButton>}
        {(waits || phase === 'asks') && (
          <TextButton onClick={() => setAsking('aside')}>
            {waits ? 'Remove it from the queue…' : 'Mark as resolved…'}
          </TextButton>
        )}
        <TextButton onClick={() => setAsking('see')}>See the message</TextButton>
      </p>
      {asking === 'again' && (
        <ComposeDialog about={about} write={() => writeAgain(mail)} replaces={mail} onClose={() => setAsking(null)} />
      )}
      {asking === 'see' && <MailDialog mail={mail} onClose={() => setAsking(null)} />}
      {asking === 'aside' && (
        <WordDayDialog
          title={waits ? `Remove the message about ${about}` : `The message about ${about} is resolved`}
          description={waits ? 'It is not sent.' : 'It leaves the Today list.'}
          words={waits ? 'Why' : 'What was done'}
          action={waits ? 'Remove it' : 'Mark as resolved'}
          onDo={async (words) => {
            const result = await act(setMailAside, { id, words });
            if (result.ok) setAsking(null);
            return result;
          }}
          onClose={() => setAsking(null)}
        />
      )}
    </>
  );
}

/** What was sent about something by mail, newest first. Nothing before something was. */
export function MailNote({ mails }: { readonly mails: readonly Mail[] }) {
  if (mails.length === 0) return null;
  return (
    <Note title="Mail">
      {mails.map((mail) => (
        <MailState key={mail.id} mail={mail} />
      ))}
    </Note>
  );
}
