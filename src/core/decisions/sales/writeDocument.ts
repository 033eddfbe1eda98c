import type { Changes, Moment } from '@/core/book/changes';
import { bookFigures } from '@/core/documents/bookFigures';
import { type Content, figuresOf, signed } from '@/core/documents/content';
import type { DeferralPlan } from '@/core/documents/deferralPlan';
import { amountKey, documentWords, type IssuedDocument, owedHomeOf, owedOf, restated } from '@/core/documents/issued';
import { KINDS } from '@/core/documents/kinds';
import { type Look, lookOf } from '@/core/documents/look';
import { sealOf } from '@/core/documents/seal';
import { advance, type Series, sealedOnly } from '@/core/documents/series';
import type { DocumentStyle } from '@/core/documents/style';
import { addDays, type IsoDate, isIsoDate, laterOf } from '@/core/kernel/date';
import { type Minor, NOTHING } from '@/core/kernel/money';
import { accept, type Refusal, type Result, refuse } from '@/core/kernel/result';
import type { Account } from '@/core/ledger/account';
import { entryOf, type PostedEntry } from '@/core/ledger/entry';
import { sidesUnder } from '@/core/ledger/posting/document';
import { periodIdOf, placeInPeriod } from '@/core/returns/calendar';
import type { TaxPeriod } from '@/core/returns/return';
import { type TaxEntry, taxEntriesOf } from '@/core/returns/taxEntry';
import type { Withheld } from '@/core/settlement/withholding';
import type { Registration } from '@/core/tax/registration';
import { type Deferring, deferredAfter, deferredBy, takingOf } from './deferring';

/** What a document carries beside its sealed content. */
export interface Beside {
  readonly id: string;
  readonly familyId: string;
  readonly tags: readonly string[];
  readonly remarks: string;
  readonly styleId: string;
  /** ISO date it is posted under; empty for the issue date. */
  readonly accountingDate: string;
  /** The style it is issued in; missing for what is not printed. */
  readonly style?: DocumentStyle;
}

/** The look of a style; the plain one needs none. */
const lookIn = (style: DocumentStyle | undefined): Look | null =>
  style === undefined || style.id === '' ? null : lookOf(style);

/** What is carried beside a document that nothing else is known of. */
export function plainBeside(id: string, familyId = id): Beside {
  return { id, familyId, tags: [], remarks: '', styleId: '', accountingDate: '' };
}

/** A document with everything that is written beside it. */
export interface Written {
  readonly document: IssuedDocument;
  readonly posted: PostedEntry;
  readonly taxEntries: readonly TaxEntry[];
  /** Null where no period reports it yet, as on payment basis before it is paid. */
  readonly period: TaxPeriod | null;
  readonly series: Series;
  readonly look: Look | null;
  /** What is kept back at issue. */
  readonly withheld: readonly Withheld[];
  /** What is deferred by it, or of its invoice with what it takes back; and the entries of both. */
  readonly deferred: Deferring;
}

/** The day an entry is posted: its own, or the first open day when its own lies in a filed period. */
export function postingDate(registration: Registration, date: IsoDate): IsoDate {
  return registration.filedUntil === '' ? date : laterOf(date, addDays(registration.filedUntil, 1));
}

/** The row of a document that nothing was posted for yet. */
function rowOf(content: Content, series: Series, beside: Beside, look: Look | null, moment: Moment): IssuedDocument {
  const { id, familyId, tags, remarks, styleId } = beside;
  const figures = figuresOf(content);
  return {
    id,
    kind: content.kind,
    number: content.number,
    customerId: content.customerId,
    customerName: content.buyer.name,
    issueDate: content.issueDate,
    dueDate: content.dueDate,
    content,
    figures,
    seal: sealOf(content, series.lastSeal),
    seriesId: series.id,
    position: series.count + 1,
    periodId: '',
    late: false,
    entryId: '',
    issuedAt: moment.now,
    open: NOTHING,
    openHome: NOTHING,
    received: NOTHING,
    credited: NOTHING,
    writtenOff: NOTHING,
    creditNotes: [],
    isOpen: 0,
    state: 'issued',
    familyId,
    sentOn: '',
    cancelled: null,
    quote: content.kind === 'quote' ? { answer: null, replacedBy: null, billed: NOTHING } : null,
    tags,
    remarks,
    styleId,
    lookId: look?.id ?? '',
    amountKey: amountKey(figures),
    words: documentWords(content, figures, { tags, remarks }),
  };
}

/**
 * Refuses a day before that of the number before it: what goes out has numbers and days that go
 * forward together. Opening items carry days of another program, and a forgotten till report comes late.
 */
function orderRefusal({ kind, issueDate }: Content, { lastDate }: Series): Refusal | null {
  return KINDS[kind].goesOut && lastDate !== '' && issueDate < lastDate
    ? { code: 'number-order', path: 'issueDate', last: lastDate, day: issueDate }
    : null;
}

/** Seals a quote; it posts nothing and stands in no period. A later version takes no number of its own. */
export function writeQuote(
  content: Content,
  series: Series,
  beside: Beside,
  moment: Moment,
): Result<{ readonly document: IssuedDocument; readonly series: Series; readonly look: Look | null }> {
  const backwards = orderRefusal(content, series);
  if (backwards !== null) return refuse(backwards);
  const look = lookIn(beside.style);
  const document: IssuedDocument = { ...restated(rowOf(content, series, beside, look, moment)), sentOn: moment.today };
  const { hash } = document.seal;
  const first = (content.version ?? 1) === 1;
  return accept({
    document,
    look,
    series: first ? advance(series, content.issueDate, hash) : sealedOnly(series, content.issueDate, hash),
  });
}

/** Accounts that lines and charges name and the chart does not hold. A credit note mirrors its invoice as it is. */
function accountRefusals(content: Content, chart: readonly Account[]): readonly Refusal[] {
  if (content.kind === 'credit-note') return [];
  const known = new Set(chart.map((account) => account.code));
  const at = (list: readonly { readonly account: string }[], name: string) =>
    list.flatMap(({ account }, i): readonly Refusal[] =>
      known.has(account)
        ? []
        : [
            {
              code: 'unknown',
              path: `${name}[${i}].account`,
              wanted: 'choose-account-of-chart',
              found: account,
            },
          ],
    );
  return [...at(content.lines, 'lines'), ...at(content.adjustments ?? [], 'adjustments')];
}

/** On payment basis a document of which nothing is payable is settled as it is issued: its tax is due at once. */
function settledAtIssue(content: Content): Content {
  if (content.basis !== 'on-payment' || owedOf(content, figuresOf(content)) !== NOTHING) return content;
  const { basis: _, ...due } = content;
  return due;
}

/** What the customer keeps back as the document is issued; of a credit note, what goes back. */
function withheldAtIssue(
  { id, customerId, customerName, number, issueDate, content, figures }: IssuedDocument,
  home: readonly Minor[],
): readonly Withheld[] {
  return (content.withholding ?? []).flatMap((type, i): readonly Withheld[] => {
    const own = figures.withholding.find((one) => one.id === type.id)?.amount ?? NOTHING;
    if (type.when !== 'on-issue' || own === NOTHING) return [];
    return [
      {
        id: `${id}:${type.id}`,
        customerId,
        customerName,
        typeId: type.id,
        typeName: type.name,
        needsCertificate: type.certificate,
        documentId: content.corrects?.documentId ?? id,
        documentNumber: number,
        receiptId: '',
        receiptNumber: '',
        date: issueDate,
        currency: content.currency,
        amount: signed(content, own),
        home: signed(content, home[i] ?? NOTHING),
        certified: NOTHING,
        claimed: NOTHING,
        isOpen: 1,
        voidOn: '',
      },
    ];
  });
}

/** Seals, posts and places a document; shared by all that post. */
export function writeDocument(
  written: Content,
  registration: Registration,
  series: Series,
  chart: readonly Account[],
  beside: Beside,
  moment: Moment,
  plans: readonly DeferralPlan[] = [],
): Result<Written> {
  const content = settledAtIssue(written);
  const placement = placeInPeriod(registration, content.taxPoint);
  const opening = content.kind === 'opening';
  if (placement === null && !opening)
    return refuse({
      code: 'before-registration',
      path: 'taxPoint',
      day: content.taxPoint,
      from: registration.keptFrom,
    });
  const backwards = orderRefusal(content, series);
  if (backwards !== null) return refuse(backwards);
  const strange = accountRefusals(content, chart);
  if (strange.length > 0) return refuse(...strange);
  const { accountingDate } = beside;
  const posting = isIsoDate(accountingDate) ? accountingDate : content.issueDate;
  const { filedUntil } = registration;
  if (accountingDate !== '' && filedUntil !== '' && posting <= filedUntil)
    return refuse({
      code: 'closed-period',
      path: 'accountingDate',
      day: posting,
      filedUntil,
    });
  // Tax of an opening item was reported before this book began; on payment basis none is due yet.
  const placed = opening || content.basis === 'on-payment' ? null : placement;
  const periodId = placed === null ? '' : periodIdOf(registration.id, placed.span.start);
  const late = placed?.late ?? false;
  const look = lookIn(beside.style);
  const row = rowOf(content, series, beside, look, moment);
  const { figures } = row;
  const entryId = moment.newId();
  const paid = content.kind === 'takings';
  const owed: Minor = paid ? NOTHING : owedOf(content, figures);
  const document = restated({
    ...row,
    periodId,
    late,
    entryId,
    open: owed,
    openHome: paid ? NOTHING : owedHomeOf(content, figures),
    isOpen: owed === 0n ? 0 : 1,
  });
  const counted = bookFigures(content, figures);
  // An opening item touches no tax: it stands on its own day, or on the first of the book.
  const day = opening ? laterOf(posting, registration.keptFrom) : postingDate(registration, posting);
  const taking = takingOf(content, figures, counted, plans, day);
  const posted = entryOf(
    {
      id: entryId,
      date: day,
      kind: content.kind === 'quote' ? 'invoice' : content.kind,
      text: `${content.number} ${content.buyer.name}`,
      sourceId: row.id,
      at: moment.now,
    },
    sidesUnder(registration, content.basis ?? 'on-issue', content, figures, counted, chart, periodId, taking.nets),
  );
  return accept({
    document,
    posted,
    taxEntries: opening ? [] : taxEntriesOf(row.id, content, figures, registration, periodId, late),
    period: placed === null ? null : { id: periodId, registrationId: registration.id, ...placed.span, filed: null },
    series: advance(series, content.issueDate, row.seal.hash),
    look,
    withheld: withheldAtIssue(document, counted.withheld),
    deferred:
      content.kind === 'invoice'
        ? deferredBy(document, counted, day, chart, moment)
        : deferredAfter(document, taking, plans, chart, moment),
  });
}

/** What is written for a document: itself, its entry, its tax entries, and its series and period moved on. */
export function changesOf({
  document,
  posted,
  taxEntries,
  period,
  series,
  look,
  withheld,
  deferred,
}: Written): Required<Pick<Changes, 'add' | 'put'>> {
  return {
    add: {
      documents: [document],
      journal: [posted.entry, ...deferred.posted.map(({ entry }) => entry)],
      journalLines: [...posted.lines, ...deferred.posted.flatMap(({ lines }) => lines)],
      ...(taxEntries.length > 0 && { taxEntries }),
      ...(withheld.length > 0 && { withheld }),
    },
    put: {
      series: [series],
      ...(period !== null && { taxPeriods: [period] }),
      ...(look !== null && { looks: [look] }),
      ...(deferred.plans.length > 0 && { deferrals: deferred.plans }),
    },
  };
}
