import type { AccountHead } from '@/print/account';
import type { PrintedDocument } from '@/print/words';
import { loadBook } from '@/store/load';
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
