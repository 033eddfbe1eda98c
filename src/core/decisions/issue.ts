import { type Content, figuresOf } from '@/core/documents/content';
import type { Draft } from '@/core/documents/draft';
import { freezeInvoice } from '@/core/documents/freeze';
import { type IssuedDocument, owedOf } from '@/core/documents/issued';
import { sealOf } from '@/core/documents/seal';
import { advance, nextNumber, type Series } from '@/core/documents/series';
import { registrationFor, type Setting } from '@/core/documents/setting';
import { addDays, type IsoDate, isIsoDate, laterOf } from '@/core/kernel/date';
import { NOTHING } from '@/core/kernel/money';
import { accept, type Result, refuse } from '@/core/kernel/result';
import { searchKeys } from '@/core/kernel/words';
import type { Account } from '@/core/ledger/account';
import { entryOf, type PostedEntry } from '@/core/ledger/entry';
import { documentSides, notYetDueAccountOf, outputAccountOf } from '@/core/ledger/posting';
import type { Customer } from '@/core/parties/customer';
import { periodIdOf, placeInPeriod } from '@/core/periods/calendar';
import type { TaxPeriod } from '@/core/periods/return';
import { type TaxEntry, taxEntriesOf } from '@/core/periods/taxEntry';
import type { Registration } from '@/core/tax/registration';
import type { CustomerRow, Decision, Moment } from './changes';
import { findingsOn } from './findings';

/** What issuing looks at. */
export interface IssueMaterial {
  readonly draft: Draft;
  readonly customer: CustomerRow | Customer | null;
  readonly setting: Setting;
  readonly series: Series;
  readonly chart: readonly Account[];
}

/** A document with everything that is written beside it. */
export interface Written {
  readonly document: IssuedDocument;
  readonly posted: PostedEntry;
  readonly taxEntries: readonly TaxEntry[];
  /** Null on payment basis: the document belongs to no period before it is paid. */
  readonly period: TaxPeriod | null;
  readonly series: Series;
}

/** The day an entry is posted: its own, or the first open day when its own lies in a filed period. */
export function postingDate(registration: Registration, date: IsoDate): IsoDate {
  return registration.filedUntil === '' ? date : laterOf(date, addDays(registration.filedUntil, 1));
}

/** Seals, posts and places a document; shared by invoices and credit notes. */
export function writeDocument(
  content: Content,
  registration: Registration,
  series: Series,
  chart: readonly Account[],
  moment: Moment,
): Result<Written> {
  const placement = placeInPeriod(registration, content.taxPoint);
  if (placement === null)
    return refuse({
      code: 'before-registration',
      path: 'taxPoint',
      expected: `a tax point from ${registration.keptFrom} on`,
      found: content.taxPoint,
    });
  const { span, late } = placement;
  const onPayment = content.basis === 'on-payment';
  const periodId = onPayment ? '' : periodIdOf(registration.id, span.start);
  const figures = figuresOf(content);
  const id = moment.newId();
  const entryId = moment.newId();
  const seal = sealOf(content, series.lastSeal);
  const owed = owedOf(content, figures);
  const year = content.issueDate.slice(0, 4);
  const document: IssuedDocument = {
    id,
    kind: content.kind,
    number: content.number,
    customerId: content.customerId,
    customerName: content.buyer.name,
    issueDate: content.issueDate,
    dueDate: content.dueDate,
    content,
    figures,
    seal,
    position: Object.values(series.next).reduce((sum, next) => sum + next - 1, 1),
    periodId,
    late: late && !onPayment,
    entryId,
    issuedAt: moment.now,
    open: owed,
    received: NOTHING,
    credited: NOTHING,
    creditNote: null,
    isOpen: owed === 0n ? 0 : 1,
    keys: searchKeys([content.number, content.buyer.name, content.buyerReference, content.orderNumber, year]),
  };
  const posted = entryOf(
    {
      id: entryId,
      date: postingDate(registration, content.issueDate),
      kind: content.kind,
      text: `${content.number} ${content.buyer.name}`,
      sourceId: id,
      at: moment.now,
    },
    documentSides(content, figures, chart, {
      outputAccount: onPayment ? notYetDueAccountOf(registration, chart) : outputAccountOf(registration, chart),
      taxPeriodId: periodId,
    }),
  );
  return accept({
    document,
    posted,
    taxEntries: taxEntriesOf(id, content, figures, registration, periodId, late && !onPayment),
    period: onPayment ? null : { id: periodId, registrationId: registration.id, ...span, filed: null },
    series: advance(series, content.issueDate, seal.hash),
  });
}

/**
 * Issues a draft: next number, frozen content, seal, posting, tax entries. Refused with everything
 * that is missing, each at its field; a finding of severity `must` refuses too.
 */
export function issue(material: IssueMaterial, moment: Moment): Decision<{ id: string; number: string }> {
  const { draft, customer, setting, series, chart } = material;
  const number = isIsoDate(draft.issueDate) ? nextNumber(series, draft.issueDate) : '';
  const frozen = freezeInvoice(draft, number, customer, setting);
  if (!frozen.ok) return frozen;
  const registration = registrationFor(setting, frozen.value.registrationId);
  if (registration === undefined) return refuse({ code: 'not-found', path: '' });
  if (owedOf(frozen.value, figuresOf(frozen.value)) < 0n)
    return refuse({
      code: 'invalid',
      path: 'lines',
      expected: 'An invoice can not be below zero: credit the invoice it takes back.',
    });
  const blocking = findingsOn(frozen.value).filter((finding) => finding.severity === 'must');
  if (blocking.length > 0)
    return refuse(...blocking.map((f) => ({ code: 'check-failed' as const, path: f.field, expected: f.message })));
  const written = writeDocument(frozen.value, registration, series, chart, moment);
  if (!written.ok) return written;
  const { document, posted, taxEntries, period } = written.value;
  return accept({
    value: { id: document.id, number },
    changes: {
      add: { documents: [document], journal: [posted.entry], journalLines: posted.lines, taxEntries },
      put: { series: [written.value.series], ...(period !== null && { taxPeriods: [period] }) },
      remove: { drafts: [draft.id] },
      audit: { subject: number, after: { customer: document.customerName, gross: document.figures.totals.gross } },
    },
  });
}
