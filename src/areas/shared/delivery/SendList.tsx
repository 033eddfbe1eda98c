'use client';

import { useRef, useState } from 'react';
import type { Queued } from '@/core/decisions/delivery/sending';
import type { IssuedDocument } from '@/core/documents/issued';
import { KINDS } from '@/core/documents/kinds';
import { wordRefusals } from '@/core/wording/refusals';
import { Button } from '@/ui/Button';
import { Dialog } from '@/ui/Dialog';
import Link from '@/ui/Link';
import { Progress } from '@/ui/Progress';
import { Stopped, sendInWorker } from '@/workers/client';
import { moment } from '../../shell/book';
import { routes } from '../../shell/routes';

interface SendListProps {
  /** Gives every document of the list, not only those on screen. */
  readonly all: () => Promise<readonly IssuedDocument[]>;
  readonly onClose: () => void;
}

const MOST_NAMED = 50;

/** Writes, checks and queues the e-invoices of a whole list. Shows how far it is and can be stopped. */
export function SendList({ all, onClose }: SendListProps) {
  const [doing, setDoing] = useState<{ readonly done: number; readonly of: number } | null>(null);
  const [said, setSaid] = useState('');
  const [answers, setAnswers] = useState<readonly Queued[]>([]);
  const stop = useRef<AbortController | null>(null);
  const send = async () => {
    const control = new AbortController();
    stop.current = control;
    let had: readonly Queued[] = [];
    setSaid('');
    setAnswers([]);
    try {
      const documents = await all();
      const ids = documents
        .filter(({ kind, content }) => KINDS[kind].eInvoice && content.buyer.endpoint.id !== '')
        .map(({ id }) => id);
      if (ids.length === 0) return setSaid('Nobody in this list takes e-invoices.');
      setDoing({ done: 0, of: ids.length });
      const onDone = (more: readonly Queued[]) => {
        had = [...had, ...more];
        setDoing({ done: had.length, of: ids.length });
      };
      const result = await sendInWorker(ids, moment(), onDone, control.signal);
      if (!result.ok) setSaid(`${wordRefusals(result.refusals)} `);
    } catch (error) {
      setSaid(error instanceof Stopped ? 'Stopped. ' : `It could not go on: ${(error as Error).message} `);
    } finally {
      const queued = had.filter(({ fault }) => fault === null).length;
      const before = had.filter(({ already }) => already).length;
      setAnswers(had.filter(({ fault, already }) => fault !== null && !already));
      if (had.length > 0)
        setSaid((words) => `${words}${queued} on their way${before === 0 ? '' : `, ${before} sent before`}.`);
      setDoing(null);
      stop.current = null;
    }
  };
  return (
    <Dialog
      open
      onClose={() => {
        stop.current?.abort();
        onClose();
      }}
      title="Send the list as e-invoices"
      description="Every invoice and credit note of the list whose customer takes e-invoices and that was not sent yet. Each is written, checked and put into the queue."
    >
      {doing === null ? (
        <div className="flex flex-wrap gap-2.5">
          <Button weight="main" onClick={() => void send()}>
            Send what was not sent
          </Button>
          <Button weight="quiet" onClick={onClose}>
            {said === '' ? 'Not now' : 'Close'}
          </Button>
        </div>
      ) : (
        <div>
          <Progress label="Checked so far" {...doing} />
          <p className="flex items-center justify-between">
            {doing.done} of {doing.of}
            <Button onClick={() => stop.current?.abort()}>Stop</Button>
          </p>
        </div>
      )}
      <p role="status" className="min-h-[22px] pt-2">
        {said}
      </p>
      {answers.length > 0 && (
        <ul aria-label="Not sent" className="max-h-[240px] overflow-auto text-sm">
          {answers.slice(0, MOST_NAMED).map(({ documentId, number, fault }) => (
            <li key={documentId} className="border-rule border-b py-1">
              <Link href={routes.document(documentId)} className="underline underline-offset-2">
                {number}
              </Link>{' '}
              {fault?.expected}
            </li>
          ))}
          {answers.length > MOST_NAMED && <li className="py-1 text-soft">and {answers.length - MOST_NAMED} more</li>}
        </ul>
      )}
    </Dialog>
  );
}
