import type { MailToQueue } from '@/core/decisions/delivery/mailing';
import { type Proposed, proposed, receiversFor, valuesOfAccount } from '@/core/delivery/compose';
import type { MailPurpose } from '@/core/delivery/mail';
import { templateFor } from '@/core/delivery/messageTemplate';
import { type Customer, sendingOf } from '@/core/parties/customer';
import type { ReminderPlan } from '@/core/settlement/reminder';
import { printedReminder } from '@/print/account';
import type { PrintedDocument } from '@/print/words';
import { loadBook } from '@/store/load';
import { allOf, recordOf } from '@/store/records';
import { accountHead, pagesAsPdf, statementPages } from '../shared/accountPrint';
import { bookDb, today } from '../shell/book';
import { fileToSend } from '../shell/delivery/mailing';
import { mailWriter } from '../shell/delivery/sampleValues';

/** A reminder with its words, and the way it goes. */
export interface ReminderLetter extends Proposed {
  readonly plan: ReminderPlan;
  readonly customer: Customer;
  readonly language: string;
  readonly purpose: MailPurpose;
  readonly way: 'mail' | 'print';
}

/** Writes the words of a reminder in the language of its customer; null where the customer is gone. */
export async function letterOf(plan: ReminderPlan): Promise<ReminderLetter | null> {
  const db = bookDb();
  const [{ business }, customer, templates] = await Promise.all([
    loadBook(db),
    recordOf(db, 'customers', plan.customerId),
    allOf(db, 'messageTemplates'),
  ]);
  if (customer === null) return null;
  const purpose = `reminder-${plan.level as 1 | 2 | 3}` as const;
  const { language } = customer;
  const { to, contact } = receiversFor(customer, purpose);
  const items = plan.items.map(({ document, due, overdue }) => ({
    number: document.number,
    due,
    open: overdue,
    currency: plan.currency,
  }));
  const names = { customer: customer.name, contact: contact?.name ?? '', business: business.name };
  const values = valuesOfAccount(items, today(), names, mailWriter(language, plan.currency));
  const words = proposed(templateFor(templates, purpose, language), values, to);
  const way = to.length === 0 || sendingOf(customer).way === 'print' ? 'print' : 'mail';
  return { ...words, plan, customer, language, purpose, way };
}

/** The message of a reminder, with the statement of the account where it goes along. */
export async function mailOf(letter: ReminderLetter, withStatement: boolean): Promise<MailToQueue> {
  const { plan, customer, language, purpose, to, cc, bcc, subject, text } = letter;
  const pages = withStatement ? await statementPages(customer.id, { from: null, until: today() }) : [];
  const files = pages.length === 0 ? [] : [fileToSend('statement.pdf', 'application/pdf', await pagesAsPdf(pages))];
  return {
    to,
    cc,
    bcc,
    subject,
    text,
    purpose,
    language,
    customerId: customer.id,
    documentIds: plan.items.map(({ document }) => document.id),
    about: plan.items.map(({ document }) => document.number).join(', '),
    copy: true,
    view: null,
    files,
    replaces: '',
  };
}

/** A reminder on paper, with the statement behind it where it goes along. */
export async function pagesOf(letter: ReminderLetter, withStatement: boolean): Promise<readonly PrintedDocument[]> {
  const { plan, customer } = letter;
  const head = await accountHead(customer.id);
  if (head === null) return [];
  const items = plan.items.map(({ document, due, overdue }) => ({
    number: document.number,
    date: document.issueDate,
    due,
    open: overdue,
  }));
  const page = printedReminder(head, letter, items, plan.currency, today());
  return [page, ...(withStatement ? await statementPages(customer.id, { from: null, until: today() }) : [])];
}
