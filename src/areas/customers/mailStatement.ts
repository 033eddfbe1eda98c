import { proposed, receiversFor, valuesOfAccount } from '@/core/delivery/compose';
import { templateFor } from '@/core/delivery/messageTemplate';
import { openItemsOn } from '@/core/settlement/account';
import { wordRefusals } from '@/core/wording/refusals';
import type { StatementSpan } from '@/print/account';
import { accountRows } from '@/store/customers/queries/account';
import { sendMails } from '@/store/delivery/actions/mail';
import { loadBook } from '@/store/load';
import { customerAndChildren } from '@/store/payments/queries/debts';
import { allOf, recordOf } from '@/store/records';
import { pagesAsPdf, statementPages } from '../shared/accountPrint';
import { act, bookDb } from '../shell/book';
import { fileToSend } from '../shell/delivery/mailing';
import { mailWriter } from '../shell/delivery/sampleValues';

/** Sends a customer its statement by mail, in its language; why it was not sent, or empty. */
export async function mailStatement(customerId: string, span: StatementSpan): Promise<string> {
  const db = bookDb();
  const [{ business }, customer, templates, pages] = await Promise.all([
    loadBook(db),
    recordOf(db, 'customers', customerId),
    allOf(db, 'messageTemplates'),
    statementPages(customerId, span),
  ]);
  if (customer === null) return 'it is not in the book.';
  if (pages.length === 0) return 'nothing happened and nothing is open.';
  const { to, contact } = receiversFor(customer, 'statement');
  if (to.length === 0) return 'no e-mail address is known.';
  const rows = await accountRows(db, await customerAndChildren(db, customerId));
  const items = openItemsOn(rows, span.until).map(({ number, due, open, currency }) => ({
    number,
    due,
    open,
    currency,
  }));
  const write = mailWriter(customer.language, business.homeCurrency);
  const names = { customer: customer.name, contact: contact?.name ?? '', business: business.name };
  // Where nothing is open, that is what the statement says.
  const open = valuesOfAccount(items, span.until, names, write);
  const none = { 'amount due': write.money(0n, business.homeCurrency), documents: ' ' };
  const values = items.length === 0 ? { ...open, ...none } : open;
  const words = proposed(templateFor(templates, 'statement', customer.language), values, to);
  if (words.missing.length > 0) return `nothing is known for ${words.missing.join(', ')}.`;
  const { missing: _, ...said } = words;
  const file = fileToSend('statement.pdf', 'application/pdf', await pagesAsPdf(pages));
  const mail = {
    ...said,
    purpose: 'statement' as const,
    language: customer.language,
    customerId,
    documentIds: [],
    about: `Statement, ${customer.name}`,
    copy: true,
    view: null,
    files: [file],
    replaces: '',
  };
  const result = await act(sendMails, { mails: [mail] });
  return result.ok ? '' : wordRefusals(result.refusals);
}
