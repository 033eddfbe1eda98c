import Dexie from 'dexie';
import { type AdvanceLeft, advancesLeft } from '@/core/documents/advances';
import type { BookDb } from '../../schema';

/** What is left to take off of the advance invoices of a customer. */
export function advancesOf(db: BookDb, customerId: string): Promise<readonly AdvanceLeft[]> {
  return db.documents
    .where('[customerId+issueDate]')
    .between([customerId, Dexie.minKey], [customerId, Dexie.maxKey])
    .toArray()
    .then(advancesLeft);
}
