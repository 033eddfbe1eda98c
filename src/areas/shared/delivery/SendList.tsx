'use client';

import { useState } from 'react';
import type { Queued } from '@/core/decisions/delivery/sending';
import type { IssuedDocument } from '@/core/documents/issued';
import { KINDS } from '@/core/documents/kinds';
import { wordRefusal, wordRefusals } from '@/core/wording/refusals';
import { Button } from '@/ui/Button';
import { sendInWorker } from '@/workers/client';
import { moment } from '../../shell/book';
import { RunDialog } from '../RunDialog';
import { useRun } from '../useRun';
import { NotSent } from './NotSent';

interface SendListProps {
  /** Gives every document of the list, not only those on screen. */
  readonly all: () => Promise<readonly IssuedDocument[]>;
  readonly onClose: () => void;
}

/** What came of those that were taken up; what is queued stays queued when the rest is stopped. */
function sum(answers: readonly Queued[]): string {
  if (answers.length === 0) return '';
  const queued = answers.filter(({ fault }) => fault === null).length;
  const before = answers.filter(({ already }) => already).length;
  return `${queued} on their way${before === 0 ? '' : `, ${before} sent before`}.`;
}

/** Writes, checks and queues the e-invoices of a whole list. */
export function SendList({ all, onClose }: SendListProps) {
  const run = useRun();
  const [faults, setFaults] = useState<readonly Queued[]>([]);
  const send = () => {
    let had: readonly Queued[] = [];
    setFaults([]);
    return run
      .start(
        async ({ signal, tell }) => {
          const documents = await all();
          const ids = documents
            .filter(({ kind, content }) => KINDS[kind].eInvoice && content.buyer.endpoint.id !== '')
            .map(({ id }) => id);
          if (ids.length === 0) return 'No customer in this list accepts e-invoices.';
          tell({ done: 0, of: ids.length });
          const onDone = (more: readonly Queued[]) => {
            had = [...had, ...more];
            tell({ done: had.length, of: ids.length });
          };
          const result = await sendInWorker(ids, moment(), onDone, signal);
          return `${result.ok ? '' : `${wordRefusals(result.refusals)} `}${sum(had)}`;
        },
        (fault) => `${fault === null ? 'Stopped.' : `It could not go on: ${fault.message}`} ${sum(had)}`,
      )
      .then(() => setFaults(had.filter(({ fault, already }) => fault !== null && !already)));
  };
  return (
    <RunDialog
      title="Send the list as e-invoices"
      description="Every invoice and credit note of the list whose customer accepts e-invoices and that was not sent yet. Each is written, checked and put into the queue."
      run={run}
      label="Checked so far"
      choices={
        <Button weight="main" onClick={() => void send()}>
          Send what was not sent
        </Button>
      }
      onClose={onClose}
    >
      <NotSent
        documents={faults.map(({ documentId, number, fault }) => ({
          id: documentId,
          number,
          why: fault === null ? '' : wordRefusal(fault),
        }))}
      />
    </RunDialog>
  );
}
