'use client';

import type { AuditEvent } from '@/core/book/rows';
import type { Mail } from '@/core/delivery/mail';
import { dayOf, writeDay } from '@/core/kernel/date';
import Link from '@/ui/Link';
import { Note } from '@/ui/Page';
import { routes } from '../shell/routes';
import { happeningsOf, type MailHappening } from './delivery/mailMark';
import { eventWord } from './eventWords';

interface TimelineNoteProps {
  readonly id: string;
  readonly events: readonly AuditEvent[];
  /** Messages about it, which tell of themselves. */
  readonly mails?: readonly Mail[];
}

/** Told by the messages themselves, with who got them and what was heard. */
const OF_MAIL: ReadonlySet<string> = new Set([
  'queue mail',
  'try mail',
  'hear of mail',
  'send mail again',
  'put mail aside',
]);

function happened(events: readonly AuditEvent[], mails: readonly Mail[]): readonly MailHappening[] {
  const own = events
    .filter(({ action }) => !OF_MAIL.has(action))
    .map(({ at, action, operator }) => ({ at, words: eventWord(action), by: operator }));
  if (mails.length === 0) return own;
  return [...own, ...mails.flatMap(happeningsOf)].sort((a, b) => (a.at < b.at ? -1 : a.at > b.at ? 1 : 0));
}

/** What happened to something, oldest first; the whole history with before and after is one step away. */
export function TimelineNote({ id, events, mails = [] }: TimelineNoteProps) {
  const happenings = happened(events, mails);
  return (
    <Note title="Timeline">
      <ol>
        {happenings.map(({ at, words, by }, i) => (
          <li key={`${i}-${at}`} className="flex justify-between gap-3 text-sm">
            <span className="min-w-0 break-words">
              {words} {by !== undefined && <span className="text-soft">by {by}</span>}
            </span>
            <time dateTime={at} className="shrink-0">
              {writeDay(dayOf(at))}
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
