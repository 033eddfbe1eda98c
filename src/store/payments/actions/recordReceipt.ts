import { positionOf } from '@/core/decisions/payments/position';
import { type ReceiptInput, type ReceiveMaterial, receive } from '@/core/decisions/payments/recordReceipt';
import type { IssuedDocument } from '@/core/documents/issued';
import { styleFor } from '@/core/documents/look';
import { seriesFor } from '@/core/documents/series';
import { isIsoDate } from '@/core/kernel/date';
import { loadBook, loadFamily, present, ratesOn } from '../../load';
import type { Action } from '../../perform';
import type { BookDb } from '../../schema';
import { notesOf } from '../queries/notes';
import { parentsOf } from '../queries/parents';

/** What credit notes for discounts look at, by document. */
function loadCredits(db: BookDb, documents: readonly IssuedDocument[]): Promise<ReceiveMaterial['credits']> {
  if (documents.length === 0) return Promise.resolve(new Map());
  return Promise.all([
    db.registrations.toArray(),
    db.series.toArray(),
    db.accounts.toArray(),
    db.styles.toArray(),
    loadBook(db),
    Promise.all(documents.map(({ familyId }) => loadFamily(db, familyId))),
    db.customers.bulkGet(documents.map(({ customerId }) => customerId)),
  ]).then(
    ([registrations, series, chart, styles, { business }, families, customers]) =>
      new Map(
        documents.map(({ id, styleId, content }, i) => [
          id,
          {
            family: families[i] ?? [],
            registration: present(
              registrations.find((one) => one.id === content.registrationId),
              'the registration',
            ),
            series: present(seriesFor(series, 'credit-note', content.registrationId), 'the credit note series'),
            chart,
            style: styleFor(styles, styleId, customers[i]?.styleId ?? '', business.styleId),
          },
        ]),
      ),
  );
}

/** The day whose rate counts: that of a cheque which is dated later. */
function rateDay({ date, parts }: ReceiptInput): string {
  const [only, ...more] = parts;
  const later = only?.method === 'cheque' && more.length === 0 ? (only.chequeDate ?? '') : '';
  return isIsoDate(later) && later > date ? later : date;
}

/** Records money received, and what was withheld with it, and settles documents with both. */
export const recordReceipt: Action<ReceiptInput, { id: string; number: string }> = {
  name: 'record receipt',
  async decide(db, input, moment) {
    const ids = input.to.map(({ documentId }) => documentId);
    const number = input.number?.trim() ?? '';
    const [customer, found, allocations, series, chart, registrations, withholdingTypes, book, taken] =
      await Promise.all([
        db.customers.get(input.customerId),
        db.documents.bulkGet(ids),
        db.allocations.where('debtId').anyOf(ids).toArray(),
        db.series.toArray(),
        db.accounts.toArray(),
        db.registrations.toArray(),
        db.withholdingTypes.toArray(),
        loadBook(db),
        number === '' ? 0 : db.receipts.where('number').equals(number).count(),
      ]);
    const debts = found.flatMap((document) => document ?? []);
    const discounted = new Set(input.to.flatMap((one) => (one.discount ? [one.documentId] : [])));
    const { homeCurrency } = book.business;
    const currency = input.currency ?? debts[0]?.content.currency ?? homeCurrency;
    const day = rateDay(input);
    const [notes, parents, credits, rates] = await Promise.all([
      notesOf(db, debts),
      parentsOf(db, [input.customerId, ...debts.map(({ customerId }) => customerId)]),
      loadCredits(
        db,
        debts.filter(({ id }) => discounted.has(id)),
      ),
      currency !== homeCurrency && isIsoDate(day) ? ratesOn(db, [currency], day) : null,
    ]);
    const registrationId = debts[0]?.content.registrationId ?? '';
    return receive(
      input,
      {
        customer,
        position: positionOf({ chart, registrations, parents }, { debts, credits: [], allocations, notes }),
        homeCurrency,
        series: present(seriesFor(series, 'receipt', registrationId), 'the receipt series'),
        numberTaken: taken > 0,
        rate: rates?.get(currency) ?? null,
        withholdingTypes,
        credits,
      },
      moment,
    );
  },
};
