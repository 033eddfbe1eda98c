import Dexie from 'dexie';
import type { CustomerRow } from '@/core/decisions/changes';
import { mergeCustomers } from '@/core/decisions/mergeCustomers';
import type { Action } from '../perform';

/** Merges the record of a double into the one that is kept. */
export const mergeDouble: Action<{ keepId: string; doubleId: string }, CustomerRow> = {
  name: 'merge customers',
  async decide(db, { keepId, doubleId }) {
    const [keep, double, documents, drafts, receipts, certificates, children] = await Promise.all([
      db.customers.get(keepId),
      db.customers.get(doubleId),
      db.documents
        .where('[customerId+issueDate]')
        .between([doubleId, Dexie.minKey], [doubleId, Dexie.maxKey])
        .toArray(),
      db.drafts.where('customerId').equals(doubleId).toArray(),
      db.receipts.where('customerId').equals(doubleId).toArray(),
      db.certificates.where('customerId').equals(doubleId).toArray(),
      db.customers.where('parentId').equals(doubleId).toArray(),
    ]);
    return mergeCustomers({ keep, double, documents, drafts, receipts, certificates, children });
  },
};
