import type { Decision, Moment } from '@/core/book/changes';
import { joinChanges } from '@/core/book/joinChanges';
import type { CustomerRow } from '@/core/book/rows';
import { type AdvanceLeft, overTaken } from '@/core/documents/advances';
import { type Content, figuresOf } from '@/core/documents/content';
import type { Draft } from '@/core/documents/draft';
import { freezeDraft } from '@/core/documents/freeze';
import { type DocumentLink, type IssuedDocument, owedOf, restated } from '@/core/documents/issued';
import { DRAFT_KINDS } from '@/core/documents/kinds';
import { styleFor } from '@/core/documents/look';
import { nextNumber, type Series, seriesFor } from '@/core/documents/series';
import { registrationFor, type Setting } from '@/core/documents/setting';
import { overrun, quotedParts } from '@/core/documents/stages';
import { isIsoDate } from '@/core/kernel/date';
import { total } from '@/core/kernel/money';
import { accept, refuse } from '@/core/kernel/result';
import type { Account } from '@/core/ledger/account';
import { onePart } from '../payments/onePart';
import { positionOf } from '../payments/position';
import { receive } from '../payments/recordReceipt';
import { draftFindings } from './draftFindings';
import { findingsOn } from './findings';
import { changesOf, writeDocument } from './writeDocument';

/** What issuing looks at. */
export interface IssueMaterial {
  readonly draft: Draft;
  readonly customer: CustomerRow | null;
  readonly setting: Setting;
  readonly series: readonly Series[];
  readonly chart: readonly Account[];
  /** The quote that the draft bills a stage of, with all documents of its family; empty for none. */
  readonly family: readonly IssuedDocument[];
  /** What is left of advance invoices that the draft takes off; empty for none. */
  readonly advances: readonly AdvanceLeft[];
}

/** What the bookkeeper agreed to when asked. */
export interface Consent {
  /** To bill more than what was quoted. */
  readonly overrun: boolean;
}

/** The number a draft would get when issued today; empty while its date or its series is not known. */
export function numberOf(
  draft: Pick<Draft, 'kind' | 'registrationId' | 'issueDate'>,
  series: readonly Series[],
): string {
  const own = seriesFor(series, DRAFT_KINDS[draft.kind].becomes, draft.registrationId);
  return own !== undefined && isIsoDate(draft.issueDate) ? nextNumber(own, draft.issueDate) : '';
}

/** The quote of a stage with what its family bills once the invoice is written. */
function quoteAfter(quote: IssuedDocument, family: readonly IssuedDocument[], invoice: IssuedDocument): IssuedDocument {
  const parts = quotedParts(quote, [...family, invoice]);
  const standing = { answer: null, replacedBy: null, ...quote.quote, billed: total(parts.map((part) => part.billed)) };
  return restated({ ...quote, quote: standing });
}

/** The content of a stage with the stages of the same quote that went out before it. */
function withEarlierStages(content: Content, family: readonly IssuedDocument[]): Content {
  const { stage } = content;
  if (stage === undefined) return content;
  const before = family
    .filter((other) => other.content.stage?.documentId === stage.documentId && other.cancelled === null)
    .map(({ number, issueDate }) => ({ number, issueDate }));
  return before.length === 0 ? content : { ...content, stage: { ...stage, before } };
}

/**
 * Issues a draft: next number, frozen content, seal, posting, tax entries; for a cash sale its receipt
 * too. Refused with everything that is missing, each at its field; a finding of severity `must`
 * refuses, and so does billing more than was quoted without consent.
 */
export function issue(material: IssueMaterial, consent: Consent, moment: Moment): Decision<DocumentLink> {
  const { draft, customer, setting, series: all, chart, family } = material;
  const registrationId = registrationFor(setting, draft.registrationId)?.id ?? '';
  const series = seriesFor(all, 'invoice', registrationId);
  const number = series !== undefined && isIsoDate(draft.issueDate) ? nextNumber(series, draft.issueDate) : '';
  const frozen = freezeDraft(draft, number, customer, setting);
  if (!frozen.ok) return frozen;
  const content = withEarlierStages(frozen.value, family);
  const figures = figuresOf(content);
  const registration = registrationFor(setting, content.registrationId);
  if (registration === undefined || series === undefined || customer === null)
    return refuse({ code: 'not-found', path: '' });
  if (owedOf(content, figures) < 0n)
    return refuse({
      code: 'invalid',
      path: 'lines',
      wanted: 'invoice-above-zero',
    });
  const blocking = [
    ...findingsOn(content),
    ...draftFindings(draft, content, customer, setting, { today: moment.today, orderUsed: '' }),
  ].filter((finding) => finding.severity === 'must');
  if (blocking.length > 0)
    return refuse(...blocking.map((f) => ({ code: 'check-failed' as const, path: f.field, finding: f.message })));
  const over = overTaken({ content, figures }, material.advances);
  if (over !== null) return refuse({ code: 'over-taken', path: 'lines', ...over, currency: content.currency });
  const quote = family.find((document) => document.id === content.stage?.documentId);
  const beyond = quote === undefined ? [] : overrun(quotedParts(quote, family), content, figures);
  if (beyond.length > 0 && !consent.overrun)
    return refuse({ code: 'overrun', path: 'lines', quote: quote?.number ?? '', lines: beyond });
  const style = styleFor(setting.styles, draft.styleId, customer.styleId, setting.business.styleId);
  const written = writeDocument(content, registration, series, chart, { ...draft, style }, moment);
  if (!written.ok) return written;
  const { document } = written.value;
  const { add, put } = changesOf(written.value);
  const known: CustomerRow = { ...customer, prospect: false };
  const issued = {
    add,
    put: {
      ...put,
      ...(quote !== undefined && { documents: [quoteAfter(quote, family, document)] }),
      ...(customer.prospect && { customers: [known] }),
    },
    remove: { drafts: [draft.id] },
    audit: {
      subject: number,
      about: [document.id, customer.id, ...(quote === undefined ? [] : [quote.id])],
      after: { customer: document.customerName, gross: document.figures.totals.gross, currency: content.currency },
    },
  };
  const value = { id: document.id, number };
  const receipts = seriesFor(all, 'receipt', registrationId);
  if (!DRAFT_KINDS[draft.kind].paidAtOnce || document.open === 0n || receipts === undefined)
    return accept({ value, changes: issued });
  const received = receive(
    onePart({
      customerId: customer.id,
      date: document.issueDate,
      method: draft.paidBy,
      reference: number,
      currency: content.currency,
      allocations: [{ documentId: document.id, number, amount: document.open }],
      perHome: content.home?.perHome ?? '',
    }),
    {
      customer,
      position: positionOf(
        { chart, registrations: [registration] },
        { debts: [document], credits: [], allocations: [], notes: [] },
      ),
      homeCurrency: content.home?.currency ?? content.currency,
      series: receipts,
      numberTaken: false,
      rate: null,
      withholdingTypes: [],
      credits: new Map(),
    },
    moment,
  );
  if (!received.ok) return received;
  return accept({
    value,
    changes: joinChanges(
      { changes: issued },
      { changes: received.value.changes, on: [document], action: 'record receipt' },
    ),
  });
}
