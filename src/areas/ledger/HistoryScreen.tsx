'use client';

import { useSearchParams } from 'next/navigation';
import { useState } from 'react';
import type { AuditEvent } from '@/core/book/rows';
import { differences } from '@/core/kernel/differences';
import { minor } from '@/core/kernel/money';
import { showMoney } from '@/core/kernel/show';
import { latestEvents } from '@/store/ledger/queries/ledger';
import { historyOf } from '@/store/sales/queries/family';
import { Button } from '@/ui/Button';
import { TextField } from '@/ui/Field';
import Link from '@/ui/Link';
import { Sheet, SheetTitle } from '@/ui/Page';
import { eventWord, fieldWords } from '../shared/eventWords';
import { useOpenBook } from '../shell/BookContext';
import { useBook } from '../shell/book';
import { routes } from '../shell/routes';

const PAGE = 50;
/** Differences beyond this are counted, not listed. */
const CHANGES_SHOWN = 30;

function when(at: string): string {
  return `${at.slice(0, 10)} ${at.slice(11, 16)}`;
}

/** What an event changed: each field before and after. */
function Changes({ event }: { readonly event: AuditEvent }) {
  const { currency } = useOpenBook();
  const found = differences(event.before, event.after, (amount) => showMoney(minor(amount), currency));
  if (found.length === 0) return null;
  return (
    <dl className="mt-1 grid grid-cols-[minmax(120px,1fr)_minmax(0,2fr)_minmax(0,2fr)] gap-x-4 text-sm">
      {found.slice(0, CHANGES_SHOWN).map(({ path, before, after }) => (
        <div key={path} className="contents">
          <dt className="truncate text-soft" title={fieldWords(path)}>
            {fieldWords(path)}
          </dt>
          <dd className="break-words text-soft">{before === '' ? '—' : before}</dd>
          <dd className="break-words">{after === '' ? '—' : after}</dd>
        </div>
      ))}
      {found.length > CHANGES_SHOWN && <dt className="text-soft">and {found.length - CHANGES_SHOWN} more</dt>}
    </dl>
  );
}

/** Who did what and when, with before and after: of the whole book, or of one object. */
export function HistoryScreen() {
  const about = useSearchParams().get('about') ?? '';
  const [limit, setLimit] = useState(PAGE);
  const [query, setQuery] = useState('');
  const events = useBook(
    async (db) => (about === '' ? latestEvents(db, query, limit) : (await historyOf(db, about)).reverse()),
    [about],
    [query, limit],
  );
  return (
    <Sheet label="Audit trail">
      <SheetTitle
        aside={
          about === '' ? (
            'newest first'
          ) : (
            <Link href={routes.history} className="underline underline-offset-4">
              the whole trail
            </Link>
          )
        }
      >
        {about === '' ? 'Audit trail' : `History of ${events?.at(0)?.subject ?? 'this'}`}
      </SheetTitle>
      {about === '' && (
        <TextField
          label="Find an event: a number, a name, who did it, a date"
          className="w-[420px]"
          value={query}
          onChange={(event) => {
            setQuery(event.target.value);
            setLimit(PAGE);
          }}
        />
      )}
      <ol>
        {events?.map((event) => (
          <li key={event.id} className="border-rule border-b py-1.5">
            <p className="flex gap-4">
              <time dateTime={event.at} className="shrink-0 text-soft tabular-nums">
                {when(event.at)}
              </time>
              <span className="flex-1">
                {eventWord(event.action)}: {event.subject}
              </span>
              <span className="text-soft">{event.operator}</span>
            </p>
            <Changes event={event} />
          </li>
        ))}
      </ol>
      {events?.length === 0 && (
        <p className="text-soft">{query === '' ? 'Nothing is written about this yet.' : 'No event matches.'}</p>
      )}
      {about === '' && events !== undefined && events.length >= limit && (
        <p className="pt-3">
          <Button onClick={() => setLimit(limit + PAGE)}>Show more</Button>
        </p>
      )}
    </Sheet>
  );
}
