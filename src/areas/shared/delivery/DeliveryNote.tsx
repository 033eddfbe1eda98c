'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { toast } from 'sonner';
import { answerWords } from '@/core/delivery/answer';
import type { Transmission } from '@/core/delivery/transmission';
import { dayOf, writeDay } from '@/core/kernel/date';
import { wordRefusals } from '@/core/wording/refusals';
import { putTransmissionAside, trySendingAgain } from '@/store/delivery/actions/sending';
import { Mark } from '@/ui/Mark';
import { Note } from '@/ui/Page';
import { TextButton } from '@/ui/TextButton';
import { act } from '../../shell/book';
import { openFile } from '../../shell/openedFile';
import { routes } from '../../shell/routes';
import { WordDayDialog } from '../WordDayDialog';
import { transmissionMark } from './transmissionMark';

const WORDS = { taken: 'accepted by the access point', refused: 'not accepted', unreachable: 'not reached' } as const;

interface Happening {
  readonly at: string;
  readonly words: string;
}

/** Everything that happened to a transmission, oldest first. */
function historyOf({ queuedAt, tries, answers, handled, receipt }: Transmission): readonly Happening[] {
  const happenings = [
    { at: queuedAt, words: 'put into the queue' },
    ...tries.map(({ at, outcome, words }) => ({ at, words: `${WORDS[outcome]}: ${words}` })),
    ...answers.map((answer) => ({ at: answer.heardAt, words: `${answer.code}, ${answerWords(answer)}` })),
    ...(handled === null
      ? []
      : [{ at: handled.on, words: receipt === null ? `removed: ${handled.words}` : `done: ${handled.words}` }]),
  ];
  return happenings.sort((a, b) => (a.at < b.at ? -1 : a.at > b.at ? 1 : 0));
}

const timeOf = (at: string): string =>
  new Date(at).toLocaleTimeString('en', { hour: '2-digit', minute: '2-digit', hour12: false });

function One({ transmission }: { readonly transmission: Transmission }) {
  const router = useRouter();
  const [asking, setAsking] = useState(false);
  const { id, number, receiver, phase, receipt, file, dueAt } = transmission;
  const mark = transmissionMark(transmission);
  const waits = phase === 'queued' || (phase === 'asks' && receipt === null);
  const again = async () => {
    const result = await act(trySendingAgain, { id });
    if (!result.ok) toast.error(wordRefusals(result.refusals));
  };
  const see = async () => {
    await openFile(new File([file], `${number}.xml`));
    router.push(routes.eInvoice);
  };
  return (
    <>
      <p className="flex gap-1.5" aria-live="polite">
        <Mark kind={mark.kind} />
        <span className="min-w-0">
          {mark.word}{' '}
          <span className="break-all text-soft text-sm">
            at {receiver.scheme}:{receiver.id}
          </span>
        </span>
      </p>
      <ol className="my-1.5">
        {historyOf(transmission).map(({ at, words }, i) => (
          <li key={`${i}-${at}`} className="flex justify-between gap-3 text-sm">
            <span className="min-w-0 break-words">{words}</span>
            <time dateTime={at} title={timeOf(at)} className="shrink-0">
              {writeDay(dayOf(at))}
            </time>
          </li>
        ))}
      </ol>
      {phase === 'queued' && dueAt > transmission.queuedAt && (
        <p className="text-soft text-sm">Tried again at {timeOf(dueAt)}.</p>
      )}
      <p className="flex flex-wrap gap-x-3 text-sm">
        {waits && <TextButton onClick={() => void again()}>Try now</TextButton>}
        {(waits || phase === 'asks' || phase === 'unanswered') && (
          <TextButton onClick={() => setAsking(true)}>
            {waits ? 'Remove it from the queue…' : 'Mark as resolved…'}
          </TextButton>
        )}
        <TextButton onClick={() => void see()}>See what {receipt === null ? 'goes' : 'went'} out</TextButton>
      </p>
      {asking && (
        <WordDayDialog
          title={waits ? `Remove ${number} from the queue` : `${number} is resolved`}
          description={
            waits
              ? 'It is not sent. It can be sent later, or cancelled if it was never sent.'
              : 'It leaves the Today list. Later responses are still received.'
          }
          words={waits ? 'Why' : 'What was done'}
          action={waits ? 'Remove it' : 'Mark as resolved'}
          onDo={async (words) => {
            const result = await act(putTransmissionAside, { id, words });
            if (result.ok) setAsking(false);
            return result;
          }}
          onClose={() => setAsking(false)}
        />
      )}
    </>
  );
}

/** Where the e-invoice of a document stands with its receiver, and what can be done about it. Nothing before one was sent. */
export function ExchangeNote({ transmissions }: { readonly transmissions: readonly Transmission[] }) {
  if (transmissions.length === 0) return null;
  return (
    <Note title="E-invoice">
      {transmissions.map((transmission) => (
        <One key={transmission.id} transmission={transmission} />
      ))}
    </Note>
  );
}
