import type { MailFileToSend, MailToQueue } from '@/core/decisions/delivery/mailing';
import type { Proposed } from '@/core/delivery/compose';
import type { MailPurpose, MailView } from '@/core/delivery/mail';
import { digestOf } from '@/core/kernel/digest';
import type { SentFile } from '@/core/parties/customer';
import { wordRefusals } from '@/core/wording/refusals';
import { sendMails } from '@/store/delivery/actions/mail';
import { act } from '../book';
import { base64OfBytes } from '../fileBytes';

/** What goes along with a message, in words. */
export const FILE_WORDS: Readonly<Record<SentFile, string>> = {
  pdf: 'PDF',
  hybrid: 'PDF with the e-invoice inside',
  ubl: 'E-invoice (UBL)',
  'delivery-note': 'Delivery note',
};

/** A file that may go along with a message. */
export interface OfferedFile {
  readonly key: string;
  readonly label: string;
  /** It goes along unless it is unticked. */
  readonly on: boolean;
}

/** A message that is written and not sent yet: whom it goes to, its words, and what may go along. */
export interface WrittenMail extends Proposed {
  readonly purpose: MailPurpose;
  /** ISO 639-1. */
  readonly language: string;
  readonly customerId: string;
  readonly documentIds: readonly string[];
  /** What it is about, in words: `INV-2026-0007`. */
  readonly about: string;
  readonly offered: readonly OfferedFile[];
  /** Makes what is offered under some keys. */
  readonly make: (keys: ReadonlySet<string>) => Promise<readonly MailFileToSend[]>;
  /** What can stand in the message itself; null for nothing. */
  readonly view: MailView | null;
}

/** What a person decides beside the words. */
export interface SendingChoice {
  /** Keys of offered files. */
  readonly files: ReadonlySet<string>;
  readonly view: boolean;
  /** To ourselves. */
  readonly copy: boolean;
  /** Id of the message in whose place it goes; empty for none. */
  readonly replaces: string;
}

/** Bytes as a file of a message. */
export function fileToSend(name: string, type: string, bytes: Uint8Array): MailFileToSend {
  return { name, type, size: bytes.length, sha256: digestOf(bytes), data: base64OfBytes(bytes) };
}

/** What goes along with a message where nobody chooses. */
export function usualChoice({ offered }: WrittenMail): SendingChoice {
  return {
    files: new Set(offered.filter(({ on }) => on).map(({ key }) => key)),
    view: false,
    copy: true,
    replaces: '',
  };
}

/** The message as it is put into the queue, with its files. */
export async function toQueue(written: WrittenMail, choice: SendingChoice): Promise<MailToQueue> {
  const { missing: _, offered: __, make, view, ...said } = written;
  return {
    ...said,
    copy: choice.copy,
    view: choice.view ? view : null,
    files: await make(choice.files),
    replaces: choice.replaces,
  };
}

/** Sends a message without asking; why a person must look at it first, or empty. */
export async function sendWritten(written: WrittenMail): Promise<string> {
  const { to, missing } = written;
  if (to.length === 0) return 'No e-mail address is known: enter one and send it.';
  if (missing.length > 0) return `Nothing is known for ${missing.join(', ')}: look at the message and send it.`;
  const result = await act(sendMails, { mails: [await toQueue(written, usualChoice(written))] });
  return result.ok ? '' : wordRefusals(result.refusals);
}
