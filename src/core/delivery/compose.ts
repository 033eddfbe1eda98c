import type { IssuedDocument } from '@/core/documents/issued';
import type { IsoDate } from '@/core/kernel/date';
import { type Contact, type Customer, type MailTopic, type SentFile, sendingOf } from '@/core/parties/customer';
import type { MailPurpose, MailWords } from './mail';
import { filledIn, type MessageTemplate, type PlaceholderValues } from './messageTemplate';

/** What each purpose is about, for contacts. */
const TOPICS: Readonly<Record<MailPurpose, MailTopic>> = {
  quote: 'quotes',
  invoice: 'invoices',
  'credit-note': 'invoices',
  recurring: 'invoices',
  receipt: 'invoices',
  certificate: 'invoices',
  statement: 'statements',
  'reminder-1': 'reminders',
  'reminder-2': 'reminders',
  'reminder-3': 'reminders',
};

/** Who gets messages of a purpose: contacts that are to, else the customer itself, else its first contact with an address. */
export function receiversFor(
  { contacts, email }: Pick<Customer, 'contacts' | 'email'>,
  purpose: MailPurpose,
): { readonly to: readonly string[]; readonly contact: Contact | null } {
  const reachable = contacts.filter((contact) => contact.email !== '');
  const meant = reachable.filter(({ gets }) => gets?.includes(TOPICS[purpose]));
  const [first] = meant;
  if (first !== undefined) return { to: [...new Set(meant.map((contact) => contact.email))], contact: first };
  if (email !== '') return { to: [email], contact: reachable.find((contact) => contact.email === email) ?? null };
  const [any] = reachable;
  return { to: any === undefined ? [] : [any.email], contact: any ?? null };
}

/** What a document is sent for. */
export function purposeOf({ kind }: Pick<IssuedDocument, 'kind'>): MailPurpose {
  return kind === 'quote' ? 'quote' : kind === 'credit-note' ? 'credit-note' : 'invoice';
}

/** How amounts and days are written in the language of a message. */
export interface MailWriter {
  readonly money: (amount: bigint, currency: string) => string;
  readonly day: (day: IsoDate) => string;
}

/** What placeholders stand for in a message about one document. */
export function valuesOfDocument(
  document: IssuedDocument,
  business: string,
  contact: string,
  write: MailWriter,
): PlaceholderValues {
  const { content, figures, number, open } = document;
  const { currency } = content;
  return {
    customer: content.buyer.name,
    contact: contact || content.buyer.contact || content.buyer.name,
    business,
    number,
    date: write.day(content.issueDate),
    due: write.day(content.dueDate),
    total: write.money(figures.totals.payable, currency),
    open: write.money(open < 0n ? -open : open, currency),
    'order number': content.orderNumber,
    subject: content.subject ?? '',
    'payment link': content.payLink ?? '',
  };
}

/** A message as it is proposed, before anybody looked at it. */
export interface Proposed extends MailWords {
  /** Placeholders that had no value. */
  readonly missing: readonly string[];
}

/** The words of a template for somebody, filled in. */
export function proposed(template: MessageTemplate, values: PlaceholderValues, to: readonly string[]): Proposed {
  const subject = filledIn(template.subject, values);
  const text = filledIn(template.text, values);
  return {
    to,
    cc: [],
    bcc: [],
    subject: subject.text.replaceAll(/\s+/g, ' ').trim(),
    text: text.text,
    missing: [...new Set([...subject.missing, ...text.missing])],
  };
}

/** The files that go along to a customer, those of a kind that the document can be. */
export function filesFor(customer: Customer, isEInvoice: boolean): readonly SentFile[] {
  const { files } = sendingOf(customer);
  const wanted = files.length === 0 ? (['pdf'] as const) : files;
  return isEInvoice ? wanted : ['pdf'];
}
