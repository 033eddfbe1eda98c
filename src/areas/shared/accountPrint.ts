import { type AccountHead, printedStatement, type StatementSpan } from '@/print/account';
import type { PrintedDocument } from '@/print/words';
import { accountRows } from '@/store/customers/queries/account';
import { loadBook } from '@/store/load';
import { customerAndChildren } from '@/store/payments/queries/debts';
import { allOf, recordOf } from '@/store/records';
import { inPrinter } from '@/workers/client';
import { bookDb, moment } from '../shell/book';

/** Who writes to a customer, and in which language and style; null when the book holds no such customer. */
export async function accountHead(customerId: string): Promise<AccountHead | null> {
  const db = bookDb();
  const [{ business }, customer, bankAccounts] = await Promise.all([
    loadBook(db),
    recordOf(db, 'customers', customerId),
    allOf(db, 'bankAccounts'),
  ]);
  if (!customer) return null;
  const styleId = customer.styleId || business.styleId;
  const style = styleId === '' ? null : await recordOf(db, 'styles', styleId);
  return { business, bankAccounts, customer, ...(style && { style }) };
}

/** Pages as one PDF, made in a worker. */
export function pagesAsPdf(pages: readonly PrintedDocument[]): Promise<Uint8Array> {
  if (pages.length === 0) return Promise.reject(new Error('there is nothing to print'));
  return inPrinter((face) => face.pages(pages, moment().now));
}

/** Statements of a customer, with those under it, one for each currency in which something happened. */
export async function statementPages(customerId: string, span: StatementSpan): Promise<readonly PrintedDocument[]> {
  const head = await accountHead(customerId);
  if (head === null) return [];
  const db = bookDb();
  const rows = await accountRows(db, await customerAndChildren(db, customerId));
  const currencies = new Set([
    ...rows.documents.map(({ content }) => content.currency),
    ...rows.receipts.map(({ currency }) => currency),
  ]);
  return [...currencies]
    .map((currency) => printedStatement(head, rows, currency, span))
    .filter(({ lines, totals }) => lines.length > 0 || totals.length > 1);
}
