import { type ReceiptInput, receive } from '@/core/decisions/payments/recordReceipt';
import { seriesFor } from '@/core/documents/series';
import { isIsoDate } from '@/core/kernel/date';
import { present, ratesOn } from '../../load';
import type { Action } from '../../perform';

/** Records money received and settles invoices with it. */
export const recordReceipt: Action<ReceiptInput, { id: string; number: string }> = {
  name: 'record receipt',
  async decide(db, input, moment) {
    const [customer, documents, series, chart, registrations] = await Promise.all([
      db.customers.get(input.customerId),
      db.documents.bulkGet(input.allocations.map((allocation) => allocation.documentId)),
      db.series.toArray(),
      db.accounts.toArray(),
      db.registrations.toArray(),
    ]);
    const found = documents.flatMap((document) => (document === undefined ? [] : [[document.id, document] as const]));
    const [first] = found;
    const content = first?.[1].content;
    const abroad = content?.home === undefined || !isIsoDate(input.date) ? [] : [content.currency];
    const rates = abroad.length === 0 || !isIsoDate(input.date) ? null : await ratesOn(db, abroad, input.date);
    const own = seriesFor(series, 'receipt', content?.registrationId ?? '');
    return receive(
      input,
      {
        customer,
        documents: new Map(found),
        series: present(own, 'the receipt series'),
        chart,
        registrations,
        rate: rates?.get(content?.currency ?? '') ?? null,
      },
      moment,
    );
  },
};
