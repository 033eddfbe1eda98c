import { proposed, valuesOfAccount } from '@/core/delivery/compose';
import { openItemsOn } from '@/core/settlement/account';
import type { StatementSpan } from '@/print/account';
import { accountRows } from '@/store/customers/queries/account';
import { customerAndChildren } from '@/store/payments/queries/debts';
import { pagesAsPdf, statementPages } from '../shared/accountPrint';
import { bookDb } from '../shell/book';
import { mailWriter } from '../shell/delivery/sampleValues';
import { writingTo } from '../shell/delivery/writingTo';
import { fileToSend, type WrittenMail } from '../shell/delivery/writtenMail';

/** Writes the message with a customer's statement, in its language; or says why there is none. */
export async function writeStatement(customerId: string, span: StatementSpan): Promise<WrittenMail | string> {
  const db = bookDb();
  const [whom, pages] = await Promise.all([writingTo(customerId, 'statement'), statementPages(customerId, span)]);
  if (whom === null) return 'the customer is not in the book.';
  if (pages.length === 0) return 'nothing happened and nothing is open.';
  const { customer, to, names, template, homeCurrency } = whom;
  const rows = await accountRows(db, await customerAndChildren(db, customerId));
  const items = openItemsOn(rows, span.until).map(({ number, due, open, currency }) => ({
    number,
    due,
    open,
    currency,
  }));
  const write = mailWriter(customer.language, homeCurrency);
  // Where nothing is open, that is what the statement says.
  const open = valuesOfAccount(items, span.until, names, write);
  const none = { 'amount due': write.money(0n, homeCurrency), documents: ' ' };
  const values = items.length === 0 ? { ...open, ...none } : open;
  return {
    ...proposed(template, values, to),
    purpose: 'statement',
    language: customer.language,
    customerId,
    documentIds: [],
    about: `Statement, ${customer.name}`,
    offered: [{ key: 'statement', label: 'Statement of account', on: true }],
    make: async (keys) =>
      keys.has('statement') ? [fileToSend('statement.pdf', 'application/pdf', await pagesAsPdf(pages))] : [],
    view: null,
  };
}
