import type { Delivery } from '@/core/delivery/accessPoint';
import type { AskedMail, MailNews, MailServer, MailToSend } from '@/core/delivery/mailServer';
import { DAY, later } from '@/core/delivery/queue';
import { digest } from '@/core/kernel/digest';

/** What a receiver's server does, by a word in the part of the address before the @. All others take a message and say so. */
const SCRIPTS = ['unknown', 'full', 'slow', 'opens', 'blocked', 'down', 'silent'] as const;

type Script = (typeof SCRIPTS)[number] | 'takes';

const scriptOf = (recipient: string): Script =>
  SCRIPTS.find((script) => recipient.split('@')[0]?.toLowerCase().includes(script)) ?? 'takes';

const HOUR = 3600;

interface Planned {
  /** Seconds after the message was taken. */
  readonly after: number;
  readonly kind: MailNews['kind'];
  readonly words: string;
}

const delivered = (after: number): Planned => ({ after, kind: 'delivered', words: '250 2.0.0 Delivered' });

const PLANS: Readonly<Record<Script, readonly Planned[]>> = {
  takes: [delivered(1)],
  opens: [delivered(1), { after: 3, kind: 'opened', words: 'The message was opened.' }],
  unknown: [{ after: 1, kind: 'bounced', words: '550 5.1.1 Mailbox unknown' }],
  full: [
    { after: 60, kind: 'delayed', words: '452 4.2.2 Mailbox full, trying for two days' },
    { after: 2 * DAY, kind: 'bounced', words: '552 5.2.2 Mailbox full' },
  ],
  slow: [{ after: 60, kind: 'delayed', words: '451 4.7.1 Greylisted, trying again' }, delivered(HOUR)],
  silent: [],
  blocked: [],
  down: [],
};

const MOST_REMEMBERED = 10_000;

/** A mail server without mail: it forgets everything when the program ends, and takes a message with one id once. */
export function simulatedMailServer(): MailServer {
  const taken = new Map<string, string>();
  const take = ({ id, recipients, message }: MailToSend): Delivery => {
    const scripts = recipients.map(scriptOf);
    if (scripts.includes('down')) return { kind: 'unreachable', words: 'The mail server does not answer.' };
    const blocked = recipients.find((recipient) => scriptOf(recipient) === 'blocked');
    if (blocked !== undefined)
      return { kind: 'refused', words: `554 5.7.1 The server of ${blocked} takes nothing from us.` };
    const reference = `M-${digest(id + message).slice(0, 8)}`;
    const before = taken.get(id);
    if (before !== undefined && before !== reference) return { kind: 'refused', words: 'Another message has this id.' };
    if (taken.size >= MOST_REMEMBERED) taken.clear();
    taken.set(id, reference);
    return { kind: 'taken', reference, again: before !== undefined };
  };
  const newsOf = ({ id, recipients, takenAt }: AskedMail, now: string): readonly MailNews[] =>
    recipients.flatMap((recipient) =>
      PLANS[scriptOf(recipient)].flatMap(({ after, kind, words }): readonly MailNews[] => {
        const at = later(takenAt, after);
        return at > now ? [] : [{ id: `${id}/${recipient}/${kind}`, kind, recipient, at, words }];
      }),
    );
  return {
    send: async (mail) => take(mail),
    news: async (asked, now) => Object.fromEntries(asked.map((one) => [one.id, newsOf(one, now)])),
  };
}
