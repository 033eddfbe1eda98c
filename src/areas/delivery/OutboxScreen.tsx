'use client';

import { useState } from 'react';
import type { MailPhase } from '@/core/delivery/mail';
import { dayOf, writeDate } from '@/core/kernel/date';
import { countOfMails, mailsIn } from '@/store/delivery/queries/mail';
import Link from '@/ui/Link';
import { Mark } from '@/ui/Mark';
import { Empty, Margin, Note, Sheet, SheetTitle } from '@/ui/Page';
import { Tabs } from '@/ui/Tabs';
import { TextButton } from '@/ui/TextButton';
import { MailState } from '../shared/delivery/MailNote';
import { mailMark, mailNeed } from '../shared/delivery/mailMark';
import { ListTable } from '../shared/ListTable';
import { useMore } from '../shared/useMore';
import { useBook } from '../shell/book';
import { routes } from '../shell/routes';

const PHASES = [
  { tab: 'asks', words: 'Needs action' },
  { tab: 'queued', words: 'In the queue' },
  { tab: 'sent', words: 'Sent' },
  { tab: 'closed', words: 'Closed' },
] as const satisfies readonly { readonly tab: MailPhase; readonly words: string }[];

/** Every message that was sent or waits, by where it stands. */
export function OutboxScreen() {
  const [phase, setPhase] = useState<MailPhase>('asks');
  const [chosen, setChosen] = useState('');
  const more = useMore();
  const found = useBook(
    async (db) => ({
      counts: await Promise.all(PHASES.map((one) => countOfMails(db, one.tab))),
      rows: await mailsIn(db, phase, more.ask),
    }),
    [phase],
    [more.ask],
  );
  const { rows = [], onMore } = more.of(found?.rows);
  const mail = rows.find(({ id }) => id === chosen) ?? rows[0];
  return (
    <>
      <Sheet label="Outbox">
        <SheetTitle aside="through a simulated mail server">Outbox</SheetTitle>
        <Tabs
          label="Status"
          tabs={PHASES.map((one, i) => ({ ...one, count: found?.counts[i] }))}
          shown={phase}
          onPick={(one) => {
            setPhase(one);
            setChosen('');
            more.again();
          }}
        />
        {found !== undefined && rows.length === 0 ? (
          <Empty>
            {phase === 'asks'
              ? 'No message needs you.'
              : 'None here. Send a message from its document, or several from the list in Sales.'}
          </Empty>
        ) : (
          <ListTable
            onMore={onMore}
            caption="Messages"
            keyOf={({ id }) => id}
            rows={rows}
            columns={[
              {
                head: 'About',
                value: ({ about }) => about,
                cell: (one) => (
                  <TextButton
                    className={`min-w-[104px] text-left ${one.id === mail?.id ? 'font-semibold' : ''}`}
                    aria-pressed={one.id === mail?.id}
                    onClick={() => setChosen(one.id)}
                  >
                    {one.about}
                  </TextButton>
                ),
              },
              { head: 'Customer', cell: ({ customerName }) => customerName },
              {
                head: 'To',
                value: ({ to }) => to.join(', '),
                cell: ({ to }) => <span className="wrap-anywhere inline-block min-w-[120px]">{to.join(', ')}</span>,
              },
              {
                head: 'Status',
                value: (one) => mailMark(one).word,
                cell: (one) => {
                  const mark = mailMark(one);
                  return (
                    <>
                      <Mark kind={mark.kind} /> {mark.word}
                      {one.phase === 'asks' && <span className="block text-soft text-sm">{mailNeed(one)}</span>}
                    </>
                  );
                },
              },
              {
                head: 'Queued',
                value: ({ queuedAt }) => dayOf(queuedAt),
                cell: ({ queuedAt }) => writeDate(dayOf(queuedAt)),
              },
            ]}
          />
        )}
      </Sheet>
      <Margin>
        {mail !== undefined && (
          <Note title={`Message about ${mail.about}`}>
            <MailState key={mail.id} mail={mail} />
            {mail.documentIds[0] !== undefined && (
              <Link
                href={routes.document(mail.documentIds[0])}
                className="text-sm underline decoration-rule underline-offset-2"
              >
                The document
              </Link>
            )}
          </Note>
        )}
      </Margin>
    </>
  );
}
