import type { Content } from '@/core/documents/content';
import { type IssuedDocument, settled } from '@/core/documents/issued';
import { nextNumber, type Series } from '@/core/documents/series';
import type { IsoDate } from '@/core/kernel/date';
import { type Minor, negated } from '@/core/kernel/money';
import { accept, refuse } from '@/core/kernel/result';
import type { Account } from '@/core/ledger/account';
import type { Registration } from '@/core/tax/registration';
import type { Decision, Moment } from './changes';
import { writeDocument } from './issue';

export interface CreditMaterial {
  readonly invoice: IssuedDocument;
  readonly registration: Registration;
  readonly series: Series;
  readonly chart: readonly Account[];
}

/**
 * Takes an invoice back whole: a credit note with the same lines and the rates of the invoice,
 * dated `date`, set off against what is still open. What was paid already stays open on the note.
 */
export function credit(
  material: CreditMaterial,
  date: IsoDate,
  reason: string,
  moment: Moment,
): Decision<{ id: string; number: string }> {
  const { invoice, registration, series, chart } = material;
  if (invoice.kind !== 'invoice')
    return refuse({ code: 'invalid', path: 'documentId', expected: 'an invoice', found: invoice.number });
  if (invoice.creditNote !== null)
    return refuse({ code: 'already-credited', path: 'documentId', found: invoice.creditNote.number });
  if (reason.trim() === '') return refuse({ code: 'missing', path: 'reason', expected: 'Say why it is credited.' });
  if (date < invoice.issueDate)
    return refuse({
      code: 'invalid',
      path: 'date',
      expected: 'A credit note can not be dated before its invoice.',
      found: date,
    });
  const content: Content = {
    ...invoice.content,
    kind: 'credit-note',
    number: nextNumber(series, date),
    issueDate: date,
    taxPoint: date,
    dueDate: date,
    note: '',
    corrects: { documentId: invoice.id, number: invoice.number, issueDate: invoice.issueDate },
    reason: reason.trim(),
  };
  const written = writeDocument(content, registration, series, chart, moment);
  if (!written.ok) return written;
  const { document: note, posted, taxEntries, period } = written.value;
  const whole = negated(note.open);
  const setOff: Minor = invoice.open < whole ? invoice.open : whole;
  const link = { id: note.id, number: note.number };
  return accept({
    value: link,
    changes: {
      add: {
        documents: [settled(note, 'credited', negated(setOff))],
        journal: [posted.entry],
        journalLines: posted.lines,
        taxEntries,
      },
      put: {
        documents: [{ ...settled(invoice, 'credited', setOff), creditNote: link }],
        series: [written.value.series],
        ...(period !== null && { taxPeriods: [period] }),
      },
      audit: {
        subject: note.number,
        before: { invoice: invoice.number, open: invoice.open },
        after: { reason: content.reason, setOff },
      },
    },
  });
}
