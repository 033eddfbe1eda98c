import type { IssuedDocument } from '@/core/documents/issued';
import { daysBetween, type IsoDate } from '@/core/kernel/date';
import { type Contact, type Customer, type MailTopic, type SentFile, sendingOf } from '@/core/parties/customer';
import type { Allocation } from '@/core/settlement/allocation';
import type { Receipt } from '@/core/settlement/receipt';
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
  /** Between a thing and its figure; French keeps a space before it. */
  readonly colon: string;
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

/** Who writes to whom in a message. */
export interface MailNames {
  readonly customer: string;
  /** Empty where nobody is named. */
  readonly contact: string;
  readonly business: string;
}

/** What placeholders stand for in a message about a receipt; it names what the receipt settles. */
export function valuesOfReceipt(
  { number, date, amount, open, currency, reference }: Receipt,
  settles: readonly Pick<Allocation, 'debtNumber' | 'amount'>[],
  names: MailNames,
  write: MailWriter,
): PlaceholderValues {
  return {
    customer: names.customer,
    contact: names.contact || names.customer,
    business: names.business,
    number,
    date: write.day(date),
    total: write.money(amount, currency),
    open: write.money(open, currency),
    subject: reference,
    documents: settles.map((one) => `${one.debtNumber}${write.colon} ${write.money(one.amount, currency)}`).join('\n'),
  };
}

/** Something that is open and told of in a message. */
export interface ToldItem {
  readonly number: string;
  readonly due: IsoDate;
  readonly open: bigint;
  readonly currency: string;
}

/** What placeholders stand for in a message about all that is open, as in statements and reminders. */
export function valuesOfAccount(
  items: readonly ToldItem[],
  asAt: IsoDate,
  names: MailNames,
  write: MailWriter,
): PlaceholderValues {
  const sums = new Map<string, bigint>();
  for (const { open, currency } of items) sums.set(currency, (sums.get(currency) ?? 0n) + open);
  const oldest = items.reduce((most, { due }) => Math.max(most, daysBetween(due, asAt)), 0);
  return {
    customer: names.customer,
    contact: names.contact || names.customer,
    business: names.business,
    documents: items
      .map(
        ({ number, due, open, currency }) =>
          `${number}, ${write.day(due)}${write.colon} ${write.money(open, currency)}`,
      )
      .join('\n'),
    'amount due': [...sums].map(([currency, sum]) => write.money(sum, currency)).join(', '),
    'days late': String(oldest),
    'as at': write.day(asAt),
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
    // A placeholder that stands for nothing leaves no gap.
    text: text.text.replaceAll(/\n[^\S\n]*\n([^\S\n]*\n)+/g, '\n\n'),
    missing: [...new Set([...subject.missing, ...text.missing])],
  };
}

/** The files that go along to a customer, those of a kind that the document can be. */
export function filesFor(customer: Customer, isEInvoice: boolean): readonly SentFile[] {
  return isEInvoice ? sendingOf(customer).files : ['pdf'];
}
