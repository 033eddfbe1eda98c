'use client';

import type { AuditEvent } from '@/core/book/rows';
import { dayOf, writeDay } from '@/core/kernel/date';
import Link from '@/ui/Link';
import { Note } from '@/ui/Page';
import { routes } from '../shell/routes';
import { eventWord } from './eventWords';

/** What happened to something, oldest first; the whole history with before and after is one step away. */
export function TimelineNote({ id, events }: { readonly id: string; readonly events: readonly AuditEvent[] }) {
  return (
    <Note title="Timeline">
      <ol>
        {events.map((event) => (
          <li key={event.id} className="flex justify-between gap-3 text-sm">
            <span>
              {eventWord(event.action)} <span className="text-soft">by {event.operator}</span>
            </span>
            <time dateTime={event.at} className="shrink-0">
              {writeDay(dayOf(event.at))}
            </time>
          </li>
        ))}
      </ol>
      <Link href={routes.historyOf(id)} className="text-sm underline decoration-rule underline-offset-2">
        History with before and after
      </Link>
    </Note>
  );
}
