import { credit } from '@/core/decisions/credit';
import { isIsoDate } from '@/core/kernel/date';
import { refuse } from '@/core/kernel/result';
import { present } from '../load';
import type { Action } from '../perform';

/** Takes an issued invoice back whole with a credit note. `date` is an ISO date. */
export const creditInvoice: Action<
  { documentId: string; date: string; reason: string },
  { id: string; number: string }
> = {
  name: 'credit invoice',
  async decide(db, { documentId, date, reason }, moment) {
    if (!isIsoDate(date))
      return refuse({ code: 'invalid', path: 'date', expected: 'Give the day of the credit note.', found: date });
    const invoice = await db.documents.get(documentId);
    if (invoice === undefined) return refuse({ code: 'not-found', path: 'documentId' });
    const [registration, series, chart] = await Promise.all([
      db.registrations.get(invoice.content.registrationId),
      db.series.get('credit-note'),
      db.accounts.toArray(),
    ]);
    const material = {
      invoice,
      registration: present(registration, 'the registration'),
      series: present(series, 'the credit note series'),
      chart,
    };
    return credit(material, date, reason, moment);
  },
};
