'use client';

import { useState } from 'react';
import { Button } from '@/ui/Button';
import { ChoiceField } from '@/ui/Field';
import { sendWritten, type WrittenMail } from '../../shell/delivery/writtenMail';
import { useRun } from '../useRun';
import { ComposeDialog } from './ComposeDialog';

/** Somebody who may get a message. */
export interface MayGet {
  readonly id: string;
  readonly name: string;
  /** Writes the message, or says why there is none. */
  readonly write: () => Promise<WrittenMail | string>;
}

interface MailBatchProps {
  readonly all: readonly MayGet[];
  /** What each message is, as `Statement of account`. */
  readonly what: string;
  /** Something must be put right first. */
  readonly disabled?: boolean;
}

/** Messages to some customers: sent in one go, or one by one after a look at each; a single one is always looked at. */
export function MailBatch({ all, what, disabled = false }: MailBatchProps) {
  const [writing, setWriting] = useState<MayGet | null>(null);
  const [left, setLeft] = useState<readonly { readonly one: MayGet; readonly why: string }[]>([]);
  const run = useRun();
  const send = () =>
    run.start(
      async ({ signal, tell }) => {
        const notSent: { one: MayGet; why: string }[] = [];
        let sent = 0;
        for (const [i, one] of all.entries()) {
          if (signal.aborted) break;
          tell({ done: i, of: all.length });
          const written = await one.write();
          const why = typeof written === 'string' ? written : await sendWritten(written);
          if (why === '') sent++;
          else notSent.push({ one, why });
          setLeft([...notSent]);
        }
        return `${sent} on their way by mail${notSent.length === 0 ? '' : `, ${notSent.length} not sent`}.`;
      },
      (fault) => (fault === null ? 'Stopped: what was sent is sent.' : `It could not go on: ${fault.message}`),
    );
  const [only, ...more] = all;
  if (only === undefined) return null;
  return (
    <section aria-label="By mail" className="mt-3 border-rule border-t pt-2">
      <div className="flex items-end gap-4">
        {more.length === 0 ? (
          <Button disabled={disabled} onClick={() => setWriting(only)}>
            Send by mail…
          </Button>
        ) : (
          <>
            <ChoiceField
              label="Look at the message first"
              className="-mb-[18px] w-[300px]"
              options={[['', 'choose a customer…'], ...all.map(({ id, name }) => [id, name] as const)]}
              value=""
              disabled={disabled}
              onChange={({ target: { value } }) => setWriting(all.find(({ id }) => id === value) ?? null)}
            />
            {run.doing === null ? (
              <Button disabled={disabled} onClick={() => void send()}>
                Send {all.length} by mail
              </Button>
            ) : (
              <Button onClick={run.stop}>
                Stop, {run.doing.done} of {run.doing.of} sent
              </Button>
            )}
          </>
        )}
      </div>
      <p role="status" className="min-h-[22px] pt-2">
        {run.said}
      </p>
      {left.length > 0 && (
        <ul aria-label="Not sent" className="text-sm">
          {left.map(({ one, why }) => (
            <li key={one.id} className="flex items-baseline gap-2 border-rule border-b py-0.5">
              <span className="flex-1">
                {one.name} <span className="text-soft">{why}</span>
              </span>
              <Button weight="quiet" className="-my-1" onClick={() => setWriting(one)}>
                Write…<span className="sr-only"> to {one.name}</span>
              </Button>
            </li>
          ))}
        </ul>
      )}
      {writing !== null && (
        <ComposeDialog
          key={writing.id}
          about={`${what}, ${writing.name}`}
          write={writing.write}
          onClose={() => setWriting(null)}
        />
      )}
    </section>
  );
}
