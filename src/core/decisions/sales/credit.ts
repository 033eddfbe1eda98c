import type { Decision, Moment } from '@/core/book/changes';
import { changesInOrder, type RowChanges } from '@/core/book/changesInOrder';
import type { Transmission } from '@/core/delivery/transmission';
import type { Content } from '@/core/documents/content';
import { type CreditHead, type CreditRequest, creditContent } from '@/core/documents/creditContent';
import { leftToCredit } from '@/core/documents/creditLeft';
import type { DeferralPlan } from '@/core/documents/deferralPlan';
import { type DocumentLink, type IssuedDocument, restated } from '@/core/documents/issued';
import { KINDS } from '@/core/documents/kinds';
import { nextNumber, type Series } from '@/core/documents/series';
import { quotedParts } from '@/core/documents/stages';
import type { DocumentStyle } from '@/core/documents/style';
import type { IsoDate } from '@/core/kernel/date';
import { type Minor, NOTHING, negated, total } from '@/core/kernel/money';
import { accept, type Result, refuse } from '@/core/kernel/result';
import type { Account } from '@/core/ledger/account';
import type { Allocation } from '@/core/settlement/allocation';
import type { Registration } from '@/core/tax/registration';
import { settledTransmissions } from '../delivery/sending';
import { bringTogether, changesOfSettled, type Settled } from '../payments/settle';
import { changesOf, plainBeside, writeDocument } from './writeDocument';

export interface CreditMaterial {
  readonly invoice: IssuedDocument;
  /** All documents of its family, the invoice among them. */
  readonly family: readonly IssuedDocument[];
  readonly registration: Registration;
  readonly series: Series;
  readonly chart: readonly Account[];
  /** The style that the credit note prints in. */
  readonly style: DocumentStyle;
  /** Of the invoice's e-invoice: what they ask for is done by a credit note. */
  readonly transmissions: readonly Transmission[];
  /** All that was made of the invoice so far. */
  readonly allocations: readonly Allocation[];
  /** Its revenue that is deferred. */
  readonly plans?: readonly DeferralPlan[];
}

/** Credit notes on an invoice among its family, in the order they were issued. */
export function notesOn(invoice: IssuedDocument, family: readonly IssuedDocument[]): readonly IssuedDocument[] {
  return family
    .filter((document) => document.content.corrects?.documentId === invoice.id)
    .sort((a, b) => (a.issuedAt < b.issuedAt ? -1 : a.issuedAt > b.issuedAt ? 1 : a.position - b.position));
}

/** The quote that a document billed a stage of, with what is billed once the family has changed. */
export function quoteBehind(document: IssuedDocument, family: readonly IssuedDocument[]): readonly IssuedDocument[] {
  const quote = family.find((d) => d.id === document.content.stage?.documentId);
  if (quote === undefined || quote.quote === null) return [];
  const billed = total(quotedParts(quote, family).map((part) => part.billed));
  return [restated({ ...quote, quote: { ...quote.quote, billed } })];
}

/** A credit note on an invoice, written and set off: what it made of both, and what is written. */
export interface CreditWritten {
  readonly note: IssuedDocument;
  readonly invoice: IssuedDocument;
  readonly series: Series;
  readonly setOff: Minor;
  /** Null where nothing was open. */
  readonly settled: Settled | null;
  readonly changes: Required<RowChanges>;
}

/** Seals and posts the content of a credit note, and sets it off against what is still open. */
export function writeCredit(
  {
    invoice,
    family,
    registration,
    series,
    chart,
    style,
    allocations,
    plans = [],
  }: Omit<CreditMaterial, 'transmissions'>,
  content: Content,
  date: IsoDate,
  moment: Moment,
): Result<CreditWritten> {
  const { tags, styleId } = invoice;
  const beside = { ...plainBeside(moment.newId(), invoice.familyId), tags, styleId, style };
  const written = writeDocument(content, registration, series, chart, beside, moment, plans);
  if (!written.ok)
    return refuse(...written.refusals.map((at) => (at.path === 'issueDate' ? { ...at, path: 'date' } : at)));
  const note: IssuedDocument = { ...written.value.document, customerId: invoice.customerId };
  const settling = {
    chart,
    registrations: [registration],
    ofDebt: allocations,
    ofCredit: [],
    notes: notesOn(invoice, family),
  };
  const owed = negated(note.open);
  const setOff: Minor = invoice.open < owed ? invoice.open : owed;
  const link = { id: note.id, number: note.number };
  const before: IssuedDocument = { ...invoice, creditNotes: [...invoice.creditNotes, link] };
  const settled =
    setOff === NOTHING
      ? null
      : bringTogether({ kind: 'credit-note', note }, before, setOff, { date, path: 'amount' }, settling, moment);
  if (settled?.ok === false) return settled;
  const taken = restated(settled?.value.debt ?? before);
  const noted = settled?.value.credit?.kind === 'credit-note' ? settled.value.credit.note : note;
  const after = [...family.filter((d) => d.id !== invoice.id), taken, noted];
  return accept({
    note: noted,
    invoice: taken,
    series: written.value.series,
    setOff,
    settled: settled?.value ?? null,
    changes: changesInOrder([
      changesOf({ ...written.value, document: note }),
      ...(settled === null ? [] : [changesOfSettled([settled.value])]),
      { put: { documents: [taken, ...quoteBehind(taken, after)] } },
    ]),
  });
}

/**
 * Takes an invoice back, whole, by line or by amount, with the rates of the invoice, dated `date`, and
 * sets the note off against what is still open. What was paid already stays open on the note.
 */
export function credit(
  material: CreditMaterial,
  request: CreditRequest,
  { date, reason }: { readonly date: IsoDate; readonly reason: string },
  moment: Moment,
): Decision<DocumentLink> {
  const { invoice, family, series, transmissions } = material;
  if (!KINDS[invoice.kind].creditable)
    return refuse({ code: 'wrong-kind', path: 'documentId', number: invoice.number, takes: 'invoice' });
  if (invoice.cancelled !== null) return refuse({ code: 'settled', path: 'documentId', by: 'cancelled' });
  const notes = notesOn(invoice, family);
  if (leftToCredit(invoice, notes) === 0n && notes.length > 0)
    return refuse({ code: 'already-credited', path: 'documentId', by: notes.map((n) => n.number) });
  if (reason.trim() === '') return refuse({ code: 'missing', path: 'reason', wanted: 'say-why-credited' });
  if (date < invoice.issueDate)
    return refuse({
      code: 'invalid',
      path: 'date',
      wanted: 'day-not-before-invoice',
      found: date,
    });
  const head: CreditHead = { number: nextNumber(series, date), date, reason: reason.trim() };
  const content = creditContent(invoice, notes, request, head);
  if (!content.ok) return content;
  const written = writeCredit(material, content.value, date, moment);
  if (!written.ok) return written;
  const { note, changes, setOff } = written.value;
  return accept({
    value: { id: note.id, number: note.number },
    changes: {
      ...changes,
      put: {
        ...changes.put,
        transmissions: settledTransmissions(transmissions, `credited by ${note.number}`, moment),
      },
      audit: {
        subject: note.number,
        about: [note.id, invoice.id, invoice.customerId],
        before: { invoice: invoice.number, open: invoice.open },
        after: { reason: head.reason, setOff },
      },
    },
  });
}
