import { bouncedAt, type Mail, standingAt } from '@/core/delivery/mail';
import type { MailNews } from '@/core/delivery/mailServer';
import type { MarkKind } from '@/ui/Mark';

interface MailMark {
  readonly kind: MarkKind;
  readonly word: string;
}

const NEWS_WORDS: Readonly<Record<MailNews['kind'], string>> = {
  delivered: 'delivered',
  delayed: 'delayed',
  bounced: 'bounced',
  opened: 'opened',
};

/** Mark and word for where a message stands: the worst of its receivers decides. */
export function mailMark(mail: Mail): MailMark {
  const { phase, receipt, tries, handled } = mail;
  if (receipt === null) {
    if (phase === 'asks') return { kind: 'wrong', word: 'could not be sent' };
    if (phase === 'closed') return { kind: 'cancelled', word: 'removed from the queue' };
    return { kind: 'closing', word: tries.length === 0 ? 'waits to be sent' : 'is tried again' };
  }
  if (bouncedAt(mail).length > 0)
    return handled === null ? { kind: 'wrong', word: 'bounced' } : { kind: 'cancelled', word: 'bounced, resolved' };
  const kinds = standingAt(mail).flatMap(({ news }) => news?.kind ?? []);
  if (kinds.includes('delayed')) return { kind: 'warning', word: 'delayed' };
  if (kinds.includes('opened')) return { kind: 'good', word: 'opened' };
  return { kind: 'issued', word: kinds.includes('delivered') ? 'delivered' : 'sent' };
}

/** Why a message needs somebody, or what was heard last, in one sentence. */
export function mailNeed(mail: Mail): string {
  if (mail.receipt === null) return mail.tries.at(-1)?.words ?? '';
  const [bounced] = bouncedAt(mail);
  const last = bounced ?? mail.news.at(-1);
  return last === undefined ? '' : `${last.recipient}: ${last.words}`;
}

/** Something that happened to a message. */
export interface MailHappening {
  /** Instant. */
  readonly at: string;
  readonly words: string;
  readonly by?: string;
}

/** Everything that happened to a message, oldest first. */
export function happeningsOf({
  queuedAt,
  to,
  operator,
  tries,
  news,
  handled,
  receipt,
}: Mail): readonly MailHappening[] {
  const failed = tries.filter(({ outcome }) => outcome !== 'taken');
  const happenings: MailHappening[] = [
    { at: queuedAt, words: `message to ${to.join(', ')}`, by: operator },
    ...failed.map(({ at, words }) => ({ at, words: `message not sent: ${words}` })),
    ...(receipt === null ? [] : [{ at: receipt.at, words: `sent by mail to ${to.join(', ')}` }]),
    ...news.map(({ at, kind, recipient, words }) => ({
      at,
      words: `${NEWS_WORDS[kind]}: ${recipient}${kind === 'bounced' || kind === 'delayed' ? `, ${words}` : ''}`,
    })),
    ...(handled === null
      ? []
      : [{ at: handled.on, words: `message ${receipt === null ? 'removed' : 'resolved'}: ${handled.words}` }]),
  ];
  return happenings.sort((a, b) => (a.at < b.at ? -1 : a.at > b.at ? 1 : 0));
}
