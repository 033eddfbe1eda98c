import { isPayable } from '@/core/parties/bankAccount';
import type { BookDb } from '../../schema';

/** What of the beginning of a book is done; null once something was issued. */
export interface FirstSteps {
  /** A bank account that customers can pay into. */
  readonly payable: boolean;
  readonly customers: boolean;
  readonly styles: boolean;
  readonly drafts: boolean;
}

/** How far a new book has come. */
export async function firstSteps(db: BookDb): Promise<FirstSteps | null> {
  if ((await db.documents.limit(1).count()) > 0) return null;
  const [customers, styles, drafts] = await Promise.all(
    [db.customers, db.styles, db.drafts].map(async (table) => (await table.limit(1).count()) > 0),
  );
  const payable = (await db.bankAccounts.toArray()).some(isPayable);
  return { payable, customers: customers === true, styles: styles === true, drafts: drafts === true };
}
