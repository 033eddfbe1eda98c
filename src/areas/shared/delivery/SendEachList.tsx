'use client';

import { useState } from 'react';
import type { IssuedDocument } from '@/core/documents/issued';
import { KINDS } from '@/core/documents/kinds';
import { Button } from '@/ui/Button';
import Link from '@/ui/Link';
import { sendByWay } from '../../shell/delivery/sendByWay';
import { routes } from '../../shell/routes';
import { RunDialog } from '../RunDialog';
import { useRun } from '../useRun';

interface SendEachListProps {
  /** Gives every document of the list, not only those on screen. */
  readonly all: () => Promise<readonly IssuedDocument[]>;
  readonly onClose: () => void;
}

interface Waiting {
  readonly id: string;
  readonly number: string;
  readonly why: string;
}

const WAITING_NAMED = 50;

/** Sends what of a list was not sent, each document as its customer is sent documents. */
export function SendEachList({ all, onClose }: SendEachListProps) {
  const run = useRun();
  const [waiting, setWaiting] = useState<readonly Waiting[]>([]);
  const send = () => {
    const left: Waiting[] = [];
    const ways = new Map<string, number>();
    const sum = () => {
      const sent = [...ways].map(([way, count]) => `${count} ${way}`);
      return [...sent, left.length === 0 ? '' : `${left.length} not sent`].filter(Boolean).join(', ');
    };
    setWaiting([]);
    return run
      .start(
        async ({ signal, tell }) => {
          const documents = (await all()).filter(
            ({ kind, sentOn, cancelled }) => KINDS[kind].goesOut && sentOn === '' && cancelled === null,
          );
          if (documents.length === 0) return 'All of this list was sent.';
          for (const [i, { id, number }] of documents.entries()) {
            if (signal.aborted) return `Stopped. ${sum()}.`;
            tell({ done: i, of: documents.length });
            const { kind, words } = await sendByWay(id);
            // By mail to whom is told by each document.
            const way = words.startsWith('by mail') ? 'by mail' : words;
            if (kind === 'sent') ways.set(way, (ways.get(way) ?? 0) + 1);
            else left.push({ id, number, why: words });
          }
          return `${sum()}.`;
        },
        (fault) => `${fault === null ? 'Stopped.' : `It could not go on: ${fault.message}`} ${sum()}`,
      )
      .then(() => setWaiting(left));
  };
  return (
    <RunDialog
      title="Send the list"
      description="Every document of the list that was not sent yet, each as its customer is sent documents: as e-invoice or by mail. What goes by post is named."
      run={run}
      label="Sent so far"
      choices={
        <Button weight="main" onClick={() => void send()}>
          Send what was not sent
        </Button>
      }
      onClose={onClose}
    >
      {waiting.length > 0 && (
        <ul aria-label="Not sent" className="max-h-[240px] overflow-auto text-sm">
          {waiting.slice(0, WAITING_NAMED).map(({ id, number, why }) => (
            <li key={id} className="border-rule border-b py-1">
              <Link href={routes.document(id)} className="underline underline-offset-2">
                {number}
              </Link>{' '}
              {why}
            </li>
          ))}
          {waiting.length > WAITING_NAMED && (
            <li className="py-1 text-soft">and {waiting.length - WAITING_NAMED} more</li>
          )}
        </ul>
      )}
    </RunDialog>
  );
}
