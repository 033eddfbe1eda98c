import type { MailToQueue } from '@/core/decisions/delivery/mailing';
import { proposed, valuesOfAccount } from '@/core/delivery/compose';
import { type Customer, sendingOf } from '@/core/parties/customer';
import type { ReminderPlan } from '@/core/settlement/reminder';
import { printedReminder } from '@/print/account';
import type { PrintedDocument } from '@/print/words';
import { accountHead, pagesAsPdf, statementPages } from '../shared/accountPrint';
import { today } from '../shell/book';
import { mailWriter } from '../shell/delivery/sampleValues';
import { writingTo } from '../shell/delivery/writingTo';
import { fileToSend, toQueue, usualChoice, type WrittenMail } from '../shell/delivery/writtenMail';

/** The file that may go along. */
const STATEMENT = 'statement';

/** A reminder with its words, and the way it goes. */
export interface ReminderLetter extends WrittenMail {
  readonly plan: ReminderPlan;
  readonly customer: Customer;
  readonly way: 'mail' | 'print';
}

/** Writes the words of a reminder in the language of its customer; null where the customer is gone. */
export async function letterOf(plan: ReminderPlan): Promise<ReminderLetter | null> {
  const purpose = `reminder-${plan.level as 1 | 2 | 3}` as const;
  const whom = await writingTo(plan.customerId, purpose);
  if (whom === null) return null;
  const { customer, to, names, template } = whom;
  const { language } = customer;
  const items = plan.items.map(({ document, due, overdue }) => ({
    number: document.number,
    due,
    open: overdue,
    currency: plan.currency,
  }));
  const way = to.length === 0 || sendingOf(customer).way === 'print' ? 'print' : 'mail';
  const told = valuesOfAccount(items, today(), names, mailWriter(language, plan.currency));
  // On paper the documents stand in a table.
  const values = way === 'print' ? { ...told, documents: ' ' } : told;
  const words = proposed(template, values, to);
  return {
    ...words,
    plan,
    customer,
    way,
    language,
    purpose,
    customerId: customer.id,
    documentIds: plan.items.map(({ document }) => document.id),
    about: plan.items.map(({ document }) => document.number).join(', '),
    offered: [{ key: STATEMENT, label: 'Statement of account', on: true }],
    make: async (keys) => {
      const pages = keys.has(STATEMENT) ? await statementPages(customer.id, { from: null, until: today() }) : [];
      return pages.length === 0 ? [] : [fileToSend('statement.pdf', 'application/pdf', await pagesAsPdf(pages))];
    },
    view: null,
  };
}

/** The message of a reminder, with the statement of the account where it goes along. */
export function mailOf(letter: ReminderLetter, withStatement: boolean): Promise<MailToQueue> {
  return toQueue(letter, { ...usualChoice(letter), files: new Set(withStatement ? [STATEMENT] : []) });
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
