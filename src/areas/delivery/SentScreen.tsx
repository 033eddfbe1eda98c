'use client';

import { useState } from 'react';
import type { Phase } from '@/core/delivery/transmission';
import { dayOf, writeDate } from '@/core/kernel/date';
import { countIn, transmissionsIn } from '@/store/delivery/queries/sent';
import Link from '@/ui/Link';
import { Mark } from '@/ui/Mark';
import { Empty, Sheet, SheetTitle } from '@/ui/Page';
import { Tabs } from '@/ui/Tabs';
import { transmissionMark, transmissionNeed } from '../shared/delivery/transmissionMark';
import { ListTable } from '../shared/ListTable';
import { useMore } from '../shared/useMore';
import { useBook } from '../shell/book';
import { routes } from '../shell/routes';

const PHASES: readonly { readonly tab: Phase; readonly words: string }[] = [
  { tab: 'asks', words: 'Needs action' },
  { tab: 'queued', words: 'In the queue' },
  { tab: 'unanswered', words: 'Not answered' },
  { tab: 'answered', words: 'Answered' },
  { tab: 'closed', words: 'Closed' },
];

/** Every e-invoice that was sent or waits, by where it stands with its receiver. */
export function SentScreen() {
  const [phase, setPhase] = useState<Phase>('asks');
  const more = useMore();
  const found = useBook(
    async (db) => ({
      counts: await Promise.all(PHASES.map((one) => countIn(db, one.tab))),
      rows: await transmissionsIn(db, phase, more.ask),
    }),
    [phase],
    [more.ask],
  );
  const { rows = [], onMore } = more.of(found?.rows);
  return (
    <Sheet label="E-invoices sent">
      <SheetTitle aside="through a simulated access point">E-invoices sent</SheetTitle>
      <Tabs
        label="Status"
        tabs={PHASES.map((one, i) => ({ ...one, count: found?.counts[i] }))}
        shown={phase}
        onPick={(one) => {
          setPhase(one);
          more.again();
        }}
      />
      {found !== undefined && rows.length === 0 ? (
        <Empty>
          {phase === 'asks'
            ? 'No e-invoice needs you.'
            : 'None here. Send an e-invoice from its document, or several from the list in Sales.'}
        </Empty>
      ) : (
        <ListTable
          onMore={onMore}
          caption="E-invoices"
          keyOf={({ id }) => id}
          rows={rows}
          columns={[
            {
              head: 'Document',
              value: ({ number }) => number,
              width: '140px',
              cell: ({ documentId, number }) => (
                <Link
                  href={routes.document(documentId)}
                  className="whitespace-nowrap underline decoration-rule underline-offset-4"
                >
                  {number}
                </Link>
              ),
            },
            { head: 'To', cell: ({ customerName }) => customerName },
            {
              head: 'Status',
              value: (one) => transmissionMark(one).word,
              width: '190px',
              cell: (one) => {
                const mark = transmissionMark(one);
                return (
                  <>
                    <Mark kind={mark.kind} /> {mark.word}
                  </>
                );
              },
            },
            {
              head: 'Response',
              value: transmissionNeed,
              cell: (one) => <span className="text-sm">{transmissionNeed(one)}</span>,
            },
            {
              head: 'Since',
              width: '110px',
              value: ({ since }) => dayOf(since),
              cell: ({ since }) => writeDate(dayOf(since)),
            },
          ]}
        />
      )}
    </Sheet>
  );
}
