import type { AskedMail, MailNews } from './mailServer';
import { afterTry, askedNext, DAY, later, type OnItsWay, queuedAt } from './queue';

/** What a message is for; each has its words (`messageTemplate.ts`). */
export const MAIL_PURPOSES = [
  'quote',
  'invoice',
  'credit-note',
  'receipt',
  'statement',
  'reminder-1',
  'reminder-2',
  'reminder-3',
  'recurring',
  'certificate',
] as const;

export type MailPurpose = (typeof MAIL_PURPOSES)[number];

/** A file that goes along; its bytes are kept once for all messages that carry it. */
export interface MailFile {
  readonly name: string;
  /** Media type. */
  readonly type: string;
  /** Bytes. */
  readonly size: number;
  /** SHA-256 of its bytes, in hexadecimal: the key of what is kept. */
  readonly sha256: string;
}

/** The bytes of a file that went out. */
export interface MailFileData {
  readonly sha256: string;
  readonly size: number;
  /** Base64. */
  readonly data: string;
}

/** A document as it stands in the message itself, all as text in the language of the message. */
export interface MailView {
  readonly title: string;
  readonly facts: readonly (readonly [string, string])[];
  /** What is sold, its further text, and its value. */
  readonly lines: readonly (readonly [string, string, string])[];
  readonly totals: readonly (readonly [string, string])[];
}

/** What a person writes of a message, or a template for it. */
export interface MailWords {
  readonly to: readonly string[];
  readonly cc: readonly string[];
  readonly bcc: readonly string[];
  readonly subject: string;
  /** Plain text. */
  readonly text: string;
}

/**
 * Where a message stands, kept for its index: `queued` waits to be sent, `sent` is with the server or its receivers, `asks`
 * needs the bookkeeper (it bounced, or could not be sent), `closed` needs nobody.
 */
export const MAIL_PHASES = ['asks', 'queued', 'sent', 'closed'] as const;

export type MailPhase = (typeof MAIL_PHASES)[number];

/** A message that goes out or went out, with everything that came of it. What it says never changes. */
export interface Mail extends OnItsWay, MailWords {
  /** Also the id of the message at the server, on every try. */
  readonly id: string;
  readonly purpose: MailPurpose;
  /** ISO 639-1. */
  readonly language: string;
  readonly customerId: string;
  readonly customerName: string;
  /** Documents it is about, and what it is about in words: `INV-2026-0007`. */
  readonly documentIds: readonly string[];
  readonly about: string;
  readonly from: string;
  readonly fromName: string;
  readonly view: MailView | null;
  readonly files: readonly MailFile[];
  readonly queuedAt: string;
  readonly operator: string;
  /** In the order they were heard. */
  readonly news: readonly MailNews[];
  /** Id of the message in whose place it goes; empty for none. */
  readonly replaces: string;
  readonly phase: MailPhase;
  /** Instant since when it stands there. */
  readonly since: string;
}

/** News are asked for this long after sending: 14 days. */
const ASK_FOR = 14 * DAY;

/** How far the news go: an opened message was delivered, whatever is heard later. */
const REACH: Readonly<Record<MailNews['kind'], number>> = { delayed: 0, delivered: 1, bounced: 2, opened: 3 };

/** Everybody who gets a message. */
export function recipientsOf({ to, cc, bcc }: MailWords): readonly string[] {
  return [...new Set([...to, ...cc, ...bcc])];
}

/** Where a message stands with each receiver, and the news that say so. */
export function standingAt(mail: Mail): readonly { readonly recipient: string; readonly news: MailNews | null }[] {
  return recipientsOf(mail).map((recipient) => {
    const own = mail.news.filter((one) => one.recipient === recipient);
    const furthest = own.reduce<MailNews | null>(
      (best, one) => (best === null || REACH[one.kind] >= REACH[best.kind] ? one : best),
      null,
    );
    return { recipient, news: furthest };
  });
}

/** Who did not get it. */
export function bouncedAt(mail: Mail): readonly MailNews[] {
  return standingAt(mail).flatMap(({ news }) => (news?.kind === 'bounced' ? [news] : []));
}

function phaseOf(mail: Mail): MailPhase {
  const { handled, receipt, dueAt } = mail;
  if (receipt === null) return handled !== null ? 'closed' : dueAt === '' ? 'asks' : 'queued';
  if (bouncedAt(mail).length > 0) return handled === null ? 'asks' : 'closed';
  return dueAt === '' ? 'closed' : 'sent';
}

function placed(mail: Mail, now: string): Mail {
  const phase = phaseOf(mail);
  return phase === mail.phase ? mail : { ...mail, phase, since: now };
}

/** A message as it is put into the queue, due at once. */
export function newMail(said: Omit<Mail, keyof OnItsWay | 'queuedAt' | 'news' | 'phase' | 'since'>, now: string): Mail {
  return { ...said, ...queuedAt(now), queuedAt: now, news: [], phase: 'queued', since: now };
}

/** What a try brought. */
export function mailTried(before: Mail, delivery: Parameters<typeof afterTry>[1], now: string): Mail {
  return placed(afterTry(before, delivery, now), now);
}

/** What asking for news brought; news that are there already are passed over. */
export function mailHeard(before: Mail, news: readonly MailNews[], now: string): Mail {
  const known = new Set(before.news.map(({ id }) => id));
  const receivers = new Set(recipientsOf(before));
  const fresh = news.filter(({ id, recipient }) => receivers.has(recipient) && !known.has(id) && known.add(id));
  const asked = fresh.length > 0 ? 0 : before.asked + 1;
  const over = before.receipt === null || later(before.receipt.at, ASK_FOR) <= now;
  // What was done about an earlier bounce does not settle another one.
  const handled = fresh.some(({ kind }) => kind === 'bounced') ? null : before.handled;
  const all = { ...before, news: [...before.news, ...fresh], asked, handled };
  const opened = standingAt(all).every(({ news: one }) => one?.kind === 'opened' || one?.kind === 'bounced');
  return placed({ ...all, dueAt: over || opened ? '' : askedNext(asked, now) }, now);
}

/** Takes up again what could not be sent, with the same id. */
export function mailTakenUp(before: Mail, now: string): Mail {
  return placed({ ...before, failures: 0, handled: null, dueAt: now }, now);
}

/** What it asked for is done, or it leaves the queue. */
export function mailHandled(before: Mail, words: string, now: string): Mail {
  const dueAt = before.receipt === null ? '' : before.dueAt;
  return placed({ ...before, dueAt, handled: { on: now, words } }, now);
}

/** As its server is asked about it. @throws RangeError without a receipt. */
export function askedMail(mail: Mail): AskedMail {
  if (mail.receipt === null) throw new RangeError(`${mail.id} has no receipt`);
  return { id: mail.id, recipients: recipientsOf(mail), takenAt: mail.receipt.at };
}
