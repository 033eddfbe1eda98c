'use client';

import { useState } from 'react';
import type { IssuedDocument } from '@/core/documents/issued';
import { KINDS } from '@/core/documents/kinds';
import { recordOf } from '@/store/records';
import { sendElsewhere } from '@/store/sales/actions/afterIssue';
import { Button } from '@/ui/Button';
import { printBatch } from '@/workers/client';
import { act, bookDb, today } from '../../shell/book';
import { sendByWay } from '../../shell/delivery/sendByWay';
import { printJobs } from '../../shell/documentPrint';
import { saveFile } from '../../shell/saveFile';
import { RunDialog } from '../RunDialog';
import { useRun } from '../useRun';
import { NotSent, type NotSentDocument } from './NotSent';

interface SendEachListProps {
  /** Ids of every document of the list, not only of those on screen. */
  readonly all: () => Promise<readonly string[]>;
  readonly onClose: () => void;
}

function isToBeSent({ kind, sentOn, cancelled }: IssuedDocument): boolean {
  return KINDS[kind].goesOut && sentOn === '' && cancelled === null;
}

/** Sends what of a list was not sent, each document as its customer is sent documents. */
export function SendEachList({ all, onClose }: SendEachListProps) {
  const run = useRun();
  const [waiting, setWaiting] = useState<readonly NotSentDocument[]>([]);
  const [posted, setPosted] = useState<readonly IssuedDocument[]>([]);
  const send = () => {
    const left: NotSentDocument[] = [];
    const post: IssuedDocument[] = [];
    const ways = new Map<string, number>();
    const sum = () => {
      const sent = [...ways].map(([way, count]) => `${count} ${way}`);
      return [
        ...sent,
        post.length === 0 ? '' : `${post.length} for the post`,
        left.length === 0 ? '' : `${left.length} not sent`,
      ]
        .filter(Boolean)
        .join(', ');
    };
    setWaiting([]);
    setPosted([]);
    return run
      .start(
        async ({ signal, tell }) => {
          const ids = await all();
          // One after the other: a list of thousands is never held in memory.
          for (const [i, id] of ids.entries()) {
            if (signal.aborted) return `Stopped. ${sum()}.`;
            tell({ done: i, of: ids.length });
            const document = await recordOf(bookDb(), 'documents', id);
            if (document === null || !isToBeSent(document)) continue;
            const { kind, words } = await sendByWay(id);
            // By mail to whom is told by each document.
            const way = words.startsWith('by mail') ? 'by mail' : words;
            if (kind === 'post') post.push(document);
            else if (kind === 'sent') ways.set(way, (ways.get(way) ?? 0) + 1);
            else left.push({ id, number: document.number, why: words });
          }
          return sum() === '' ? 'All of this list was sent.' : `${sum()}.`;
        },
        (fault) => `${fault === null ? 'Stopped.' : `It could not go on: ${fault.message}`} ${sum()}`,
      )
      .then(() => {
        setWaiting(left);
        setPosted(post);
      });
  };
  const print = () =>
    run.start(
      async ({ signal, tell }) => {
        const of = posted.length;
        const bytes = await printBatch(await printJobs(posted), 'batch', (done) => tell({ done, of }), signal);
        saveFile('post.pdf', bytes, 'application/pdf');
        for (const { id } of posted) await act(sendElsewhere, { documentId: id, on: today(), how: 'post' });
        setPosted([]);
        return `${of} printed, and marked as sent by post.`;
      },
      (fault) => (fault === null ? 'Stopped; nothing was saved.' : `It could not be printed: ${fault.message}`),
    );
  return (
    <RunDialog
      title="Send the list"
      description="Every document of the list that was not sent yet, each as its customer is sent documents: as e-invoice or by mail. What goes by post is then printed together."
      run={run}
      label="Sent so far"
      choices={
        <>
          <Button weight="main" onClick={() => void send()}>
            Send what was not sent
          </Button>
          {posted.length > 0 && <Button onClick={() => void print()}>Print {posted.length} for the post</Button>}
        </>
      }
      onClose={onClose}
    >
      <NotSent documents={waiting} />
    </RunDialog>
  );
}
