import { correct } from '@/core/decisions/sales/correct';
import { type CreditMaterial, credit } from '@/core/decisions/sales/credit';
import type { CreditRequest } from '@/core/documents/creditContent';
import { correctionOf } from '@/core/documents/draftFrom';
import type { DocumentLink } from '@/core/documents/issued';
import { styleFor } from '@/core/documents/look';
import { seriesFor } from '@/core/documents/series';
import { isIsoDate } from '@/core/kernel/date';
import { accept, type Result, refuse } from '@/core/kernel/result';
import { loadFamily, loadSetting, present } from '../../load';
import type { Action } from '../../perform';
import type { BookDb } from '../../schema';

/** What crediting an invoice looks at. */
function loadMaterial(db: BookDb, documentId: string): Promise<Result<CreditMaterial>> {
  return db.documents.get(documentId).then((invoice): Result<CreditMaterial> | Promise<Result<CreditMaterial>> => {
    if (invoice === undefined) return refuse({ code: 'not-found', path: 'documentId' });
    const { registrationId } = invoice.content;
    return Promise.all([
      db.registrations.get(registrationId),
      db.series.toArray(),
      db.accounts.toArray(),
      loadFamily(db, invoice.familyId),
      db.transmissions.where('documentId').equals(documentId).toArray(),
      db.styles.toArray(),
      db.customers.get(invoice.customerId),
      db.book.get('book'),
      db.allocations.where('debtId').equals(documentId).toArray(),
      db.deferrals.where('documentId').equals(documentId).toArray(),
    ]).then(([registration, series, chart, family, transmissions, styles, customer, book, allocations, plans]) =>
      accept({
        invoice,
        family,
        registration: present(registration, 'the registration'),
        series: present(seriesFor(series, 'credit-note', registrationId), 'the credit note series'),
        chart,
        transmissions,
        allocations,
        plans,
        style: styleFor(styles, invoice.styleId, customer?.styleId ?? '', book?.business.styleId ?? ''),
      }),
    );
  });
}

/** Takes an issued invoice back with a credit note, all that is left of it unless a part is asked for. `date` is an ISO date. */
export const creditInvoice: Action<
  { documentId: string; date: string; reason: string; request?: CreditRequest },
  DocumentLink
> = {
  name: 'credit invoice',
  async decide(db, { documentId, date, reason, request = { kind: 'rest' } }, moment) {
    if (!isIsoDate(date)) return refuse({ code: 'invalid', path: 'date', wanted: 'give-day-of-credit', found: date });
    const material = await loadMaterial(db, documentId);
    return material.ok ? credit(material.value, request, { date, reason }, moment) : material;
  },
};

/** Credits what is left of a wrong invoice and puts what it said, with its files, into a new draft. */
export const correctInvoice: Action<
  { documentId: string; date: string; reason: string },
  { readonly note: string; readonly draftId: string }
> = {
  name: 'correct invoice',
  async decide(db, { documentId, date, reason }, moment) {
    if (!isIsoDate(date)) return refuse({ code: 'invalid', path: 'date', wanted: 'give-day-of-credit', found: date });
    const material = await loadMaterial(db, documentId);
    if (!material.ok) return material;
    const { invoice } = material.value;
    const customer = present(await db.customers.get(invoice.customerId), 'the customer');
    const files = await db.attachments.where('ownerId').equals(invoice.id).toArray();
    const setting = await loadSetting(db, correctionOf(invoice, '', date, customer.terms), customer);
    return correct({ ...material.value, customer, setting, files }, { date, reason }, moment);
  },
};
