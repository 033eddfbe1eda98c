'use client';

import type { AuditEvent } from '@/core/book/rows';
import { dayOf, writeDay } from '@/core/kernel/date';
import Link from '@/ui/Link';
import { Note } from '@/ui/Page';
import { routes } from '../shell/routes';

/** What the events of a document or a receipt are called on its timeline. */
const WORDS: Readonly<Record<string, string>> = {
  'begin draft': 'begun',
  'begin draft from e-invoice': 'begun from an e-invoice',
  'issue invoice': 'issued',
  'send quote': 'sent',
  'answer quote': 'answered',
  'credit invoice': 'credited',
  'correct invoice': 'corrected',
  'cancel document': 'cancelled',
  'record receipt': 'money received',
  allocate: 'settled with a credit',
  'undo allocation': 'allocation undone',
  'write off': 'written off',
  'undo write-off': 'write-off undone',
  refund: 'money given back',
  'undo refund': 'refund taken back',
  'dishonour receipt': 'came back unpaid',
  'enter withholding certificate': 'withholding certificate entered',
  'withdraw withholding certificate': 'withholding certificate taken back',
  'claim withheld tax': 'withheld tax claimed',
  'mark as sent': 'marked as sent',
  'annotate document': 'remarks or tags changed',
  'attach file': 'file attached',
  'let file out': 'file marked to go out, or not',
  'take out file': 'file taken out',
  'enter takings': 'entered',
  'enter opening item': 'taken in',
  'bill stage': 'stage begun',
  'queue e-invoices': 'e-invoice put into the queue',
  'try e-invoice': 'e-invoice tried',
  'hear of e-invoice': 'e-invoice answered',
  'send e-invoice again': 'e-invoice to be tried again',
  'put e-invoice aside': 'e-invoice put aside',
};

/** What happened to something, oldest first; the whole history with before and after is one step away. */
export function TimelineNote({ id, events }: { readonly id: string; readonly events: readonly AuditEvent[] }) {
  return (
    <Note title="Timeline">
      <ol>
        {events.map((event) => (
          <li key={event.id} className="flex justify-between gap-3 text-sm">
            <span>
              {WORDS[event.action] ?? event.action} <span className="text-soft">by {event.operator}</span>
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
