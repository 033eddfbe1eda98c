import { type ReceiptInput, receive } from '@/core/decisions/receive';
import { present } from '../load';
import type { Action } from '../perform';

/** Records money received and settles invoices with it. */
export const recordReceipt: Action<ReceiptInput, { id: string; number: string }> = {
  name: 'record receipt',
  async decide(db, input, moment) {
    const [customer, documents, series, chart, registrations] = await Promise.all([
      db.customers.get(input.customerId),
      db.documents.bulkGet(input.allocations.map((allocation) => allocation.documentId)),
      db.series.get('receipt'),
      db.accounts.toArray(),
      db.registrations.toArray(),
    ]);
    const found = documents.flatMap((document) => (document === undefined ? [] : [[document.id, document] as const]));
    return receive(
      input,
      { customer, documents: new Map(found), series: present(series, 'the receipt series'), chart, registrations },
      moment,
    );
  },
};
