import * as yup from 'yup';
import type { Changes, Decision, Moment } from '@/core/book/changes';
import type { Delivery } from '@/core/delivery/accessPoint';
import {
  type Mail,
  type MailFileData,
  type MailPurpose,
  type MailView,
  type MailWords,
  mailHandled,
  mailHeard,
  mailTakenUp,
  mailTried,
  newMail,
  recipientsOf,
} from '@/core/delivery/mail';
import { LARGEST_MAIL, type MailNews } from '@/core/delivery/mailServer';
import type { IssuedDocument } from '@/core/documents/issued';
import { accept, type Refusal, refuse } from '@/core/kernel/result';
import type { Business } from '@/core/parties/business';
import { mailAddresses } from '@/core/parties/business';
import type { Customer } from '@/core/parties/customer';

/** A file that goes along, with its bytes. */
export interface MailFileToSend {
  readonly name: string;
  readonly type: string;
  /** Bytes. */
  readonly size: number;
  readonly sha256: string;
  /** Base64. */
  readonly data: string;
}

/** A message as a person sends it. */
export interface MailToQueue extends MailWords {
  readonly purpose: MailPurpose;
  readonly language: string;
  readonly customerId: string;
  readonly documentIds: readonly string[];
  /** What it is about, in words. */
  readonly about: string;
  /** A blind copy goes to ourselves, as evidence. */
  readonly copy: boolean;
  readonly view: MailView | null;
  readonly files: readonly MailFileToSend[];
  /** Id of a message in whose place it goes; empty for none. */
  readonly replaces: string;
}

export interface MailMaterial {
  readonly business: Business;
  readonly customers: ReadonlyMap<string, Customer>;
  /** Files of messages that are kept already, by their digest. */
  readonly keptFiles: ReadonlySet<string>;
  /** Messages that are to be replaced, by id. */
  readonly replaced: ReadonlyMap<string, Mail>;
}

const MOST_RECEIVERS = 50;
const address = yup.string().max(320).email().required();

/** Addresses as they are typed, parted by commas, semicolons or lines. */
export function readAddresses(text: string): readonly string[] {
  return text
    .split(/[,;\n]/)
    .map((one) => one.trim())
    .filter(Boolean);
}

function faultsOf(mail: MailToQueue, at: string): readonly Refusal[] {
  const faults: Refusal[] = [];
  for (const field of ['to', 'cc', 'bcc'] as const)
    for (const one of mail[field])
      if (!address.isValidSync(one))
        faults.push({ code: 'invalid', path: `${at}${field}`, wanted: 'give-recipient', found: one });
  if (mail.to.length === 0) faults.push({ code: 'missing', path: `${at}to`, wanted: 'give-recipient' });
  if (recipientsOf(mail).length > MOST_RECEIVERS)
    faults.push({ code: 'too-large', path: `${at}to`, wanted: { what: 'fewer-receivers', most: MOST_RECEIVERS } });
  if (mail.subject.trim() === '')
    faults.push({ code: 'missing', path: `${at}subject`, wanted: 'write-words-of-message' });
  if (mail.text.trim() === '') faults.push({ code: 'missing', path: `${at}text`, wanted: 'write-words-of-message' });
  const size = mail.files.reduce((sum, file) => sum + file.size, 0);
  if (size > LARGEST_MAIL)
    faults.push({ code: 'too-large', path: `${at}files`, wanted: { what: 'file-of', mib: LARGEST_MAIL / 2 ** 20 } });
  return faults;
}

/** Puts messages into the queue, all or none; each keeps to the letter what goes out. */
export function queueMails(
  mails: readonly MailToQueue[],
  { business, customers, keptFiles, replaced }: MailMaterial,
  moment: Moment,
): Decision<readonly Mail[]> {
  const { from, copyTo } = mailAddresses(business);
  const faults = mails.flatMap((mail, i) => faultsOf(mail, mails.length === 1 ? '' : `mails[${i}].`));
  if (from === '') faults.push({ code: 'missing', path: 'from', wanted: 'give-sender' });
  if (faults.length > 0) return refuse(...faults);
  const known = new Set(keptFiles);
  const data: MailFileData[] = [];
  const queued = mails.map((mail): Mail => {
    for (const { sha256, size, data: bytes } of mail.files)
      if (!known.has(sha256)) {
        known.add(sha256);
        data.push({ sha256, size, data: bytes });
      }
    const { copy, files, customerId, subject, text, bcc, ...said } = mail;
    return newMail(
      {
        ...said,
        id: moment.newId(),
        customerId,
        customerName: customers.get(customerId)?.name ?? '',
        subject: subject.trim(),
        text: text.trim(),
        bcc: copy && copyTo !== '' ? [...new Set([...bcc, copyTo])] : bcc,
        from,
        fromName: business.name,
        files: files.map(({ data: _, ...file }) => file),
        operator: moment.operator,
      },
      moment.now,
    );
  });
  const aside = [...replaced.values()]
    .filter(({ phase }) => phase === 'asks' || phase === 'queued')
    .map((mail) => mailHandled(mail, 'sent again', moment.now));
  const [first] = queued;
  if (first === undefined) return accept({ value: [], changes: { audit: null } });
  return accept({
    value: queued,
    changes: {
      add: { mails: queued, ...(data.length > 0 && { mailFiles: data }) },
      ...(aside.length > 0 && { put: { mails: aside } }),
      audit: {
        subject: queued.length === 1 ? first.about : `${queued.length} messages`,
        about: queued.flatMap(({ documentIds, customerId }) => [...documentIds, customerId]).filter(Boolean),
        after: queued.map(({ id, to, subject, files }) => ({ id, to, subject, files: files.map(({ name }) => name) })),
      },
    },
  });
}

const changed = (mail: Mail, after: unknown): Changes => ({
  put: { mails: [mail] },
  audit: { subject: mail.about, about: [...mail.documentIds, mail.customerId].filter(Boolean), after },
});

/** Keeps what a try brought; documents that a taken message is about went out that day. */
export function keepMailTry(
  before: Mail,
  documents: readonly IssuedDocument[],
  delivery: Delivery,
  moment: Moment,
): Decision<Mail> {
  // Another tab had it done already.
  if (before.receipt !== null) return accept({ value: before, changes: { audit: null } });
  const value = mailTried(before, delivery, moment.now);
  const changes = changed(value, value.tries.at(-1));
  const sent = documents.filter(({ sentOn }) => sentOn === '').map((one) => ({ ...one, sentOn: moment.today }));
  if (delivery.kind !== 'taken' || sent.length === 0 || isAboutMoney(before.purpose)) return accept({ value, changes });
  return accept({ value, changes: { ...changes, put: { ...changes.put, documents: sent } } });
}

const ABOUT_MONEY: ReadonlySet<MailPurpose> = new Set([
  'receipt',
  'statement',
  'certificate',
  'reminder-1',
  'reminder-2',
  'reminder-3',
]);

/** Statements, reminders and receipts name documents without sending them. */
export function isAboutMoney(purpose: MailPurpose): boolean {
  return ABOUT_MONEY.has(purpose);
}

/** Keeps what was heard of a message; an enquiry that brought nothing new is no event of business. */
export function keepMailNews(before: Mail, news: readonly MailNews[], moment: Moment): Decision<Mail> {
  const value = mailHeard(before, news, moment.now);
  const fresh = value.news.slice(before.news.length);
  if (fresh.length === 0) return accept({ value, changes: { put: { mails: [value] }, audit: null } });
  return accept({
    value,
    changes: changed(
      value,
      fresh.map(({ kind, recipient, words }) => ({ kind, recipient, words })),
    ),
  });
}

/** Tries again, with the same id, what could not be sent. */
export function tryMailAgain(before: Mail, moment: Moment): Decision<Mail> {
  if (before.receipt !== null || before.handled !== null)
    return refuse({ code: 'unsendable', path: '', number: before.about, why: 'put-aside' });
  const value = mailTakenUp(before, moment.now);
  return accept({ value, changes: changed(value, { tries: value.tries.length }) });
}

/** Writes down that what a message asks for is done, or takes it out of the queue. */
export function putMailAside(before: Mail, words: string, moment: Moment): Decision<Mail> {
  if (words.trim() === '') return refuse({ code: 'missing', path: 'words', wanted: 'say-what-was-done' });
  const value = mailHandled(before, words.trim(), moment.now);
  return accept({ value, changes: changed(value, { handled: words.trim() }) });
}
