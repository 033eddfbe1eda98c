import { type ReceiptInput, receive } from '@/core/decisions/payments/recordReceipt';
import { seriesFor } from '@/core/documents/series';
import { isIsoDate, isoDate } from '@/core/kernel/date';
import { present, ratesOn } from '../../load';
import type { Action } from '../../perform';
import { notesOf } from '../queries/notes';

/** Records money received and settles invoices with it. */
export const recordReceipt: Action<ReceiptInput, { id: string; number: string }> = {
  name: 'record receipt',
  async decide(db, input, moment) {
    const ids = input.allocations.map((allocation) => allocation.documentId);
    const [customer, documents, allocations, series, chart, registrations, book] = await Promise.all([
      db.customers.get(input.customerId),
      db.documents.bulkGet(ids),
      db.allocations.where('debtId').anyOf(ids).toArray(),
      db.series.toArray(),
      db.accounts.toArray(),
      db.registrations.toArray(),
      db.book.get('book'),
    ]);
    const found = documents.flatMap((document) => (document === undefined ? [] : [[document.id, document] as const]));
    const [first] = found;
    const content = first?.[1].content;
    const { homeCurrency } = present(book, 'the book').business;
    const currency = input.currency ?? content?.currency ?? homeCurrency;
    const abroad = currency !== homeCurrency && isIsoDate(input.date);
    const rates = abroad ? await ratesOn(db, [currency], isoDate(input.date)) : null;
    const own = seriesFor(series, 'receipt', content?.registrationId ?? '');
    return receive(
      input,
      {
        customer,
        documents: new Map(found),
        allocations,
        notes: await notesOf(db, documents),
        homeCurrency,
        series: present(own, 'the receipt series'),
        chart,
        registrations,
        rate: rates?.get(currency) ?? null,
      },
      moment,
    );
  },
};
