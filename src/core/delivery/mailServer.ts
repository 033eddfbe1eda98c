import * as yup from 'yup';
import { isInstant } from '@/core/kernel/date';
import type { Delivery } from './accessPoint';

/** Largest message that a mail server takes, in bytes: 20 MiB. */
export const LARGEST_MAIL = 20 * 2 ** 20;

/** A message as a mail server takes it. */
export interface MailToSend {
  /** Stays the same when it is tried again, so that it is never taken twice. */
  readonly id: string;
  readonly from: string;
  /** Everybody who gets it, copies and blind copies too. */
  readonly recipients: readonly string[];
  /** Instant of this try. */
  readonly at: string;
  /** The whole message (RFC 5322), without those who get a blind copy. */
  readonly message: string;
}

export const MAIL_NEWS = ['delivered', 'delayed', 'bounced', 'opened'] as const;

/** What a mail server heard of a message. */
export interface MailNews {
  /** The server's own id, by which it is known when it is told twice. */
  readonly id: string;
  readonly kind: (typeof MAIL_NEWS)[number];
  readonly recipient: string;
  /** Instant. */
  readonly at: string;
  /** In the words of the server that said it: `550 5.1.1 Mailbox unknown`. */
  readonly words: string;
}

export const mailNewsSchema = yup.object({
  id: yup.string().max(200).required(),
  kind: yup.string().oneOf(MAIL_NEWS).required(),
  recipient: yup.string().max(320).required(),
  at: yup
    .string()
    .required()
    .test('instant', (value) => isInstant(value)),
  words: yup.string().max(1000).defined(),
});

/** A message whose news are asked for. */
export interface AskedMail {
  readonly id: string;
  readonly recipients: readonly string[];
  /** Instant at which it was taken. */
  readonly takenAt: string;
}

/** The way to the mail of others. Nothing here throws: what fails is an outcome. */
export interface MailServer {
  readonly send: (mail: MailToSend) => Promise<Delivery>;
  /** All news until `now`, by the id of the message; null where nobody could be asked. */
  readonly news: (
    asked: readonly AskedMail[],
    now: string,
  ) => Promise<Readonly<Record<string, readonly MailNews[]>> | null>;
}
