import { exponentOf } from '@/core/kernel/currency';
import type { IsoDate } from '@/core/kernel/date';
import { ratioOf, writeUnits } from '@/core/kernel/decimal';
import { type Minor, minor, minus, NOTHING, plus, writeMoney } from '@/core/kernel/money';
import { add, compare, multiply, whole, ZERO } from '@/core/kernel/ratio';
import { wordsIn } from '@/core/kernel/words';
import type { CalcResult } from '@/core/tax/calcTypes';
import { bookFigures } from './bookFigures';
import { type Content, signed } from './content';
import { type DocumentKind, KINDS } from './kinds';
import type { Seal } from './seal';
import { withheldOnIssue } from './withhold';

/** A document by its id and number. */
export interface DocumentLink {
  readonly id: string;
  readonly number: string;
}

/** What a customer said to a quote. */
export interface QuoteAnswer {
  readonly kind: 'accepted' | 'declined';
  readonly on: IsoDate;
  /** Who said so, or why it was declined. */
  readonly words: string;
}

/** What becomes of a quote after it was sent. */
export interface QuoteStanding {
  readonly answer: QuoteAnswer | null;
  /** The version that took its place, or null while it holds. */
  readonly replacedBy: DocumentLink | null;
  /** Line values invoiced so far, in minor units of the quote's currency. */
  readonly billed: Minor;
}

/** An issued document: sealed content and figures, and the settlement that moves on. */
export interface IssuedDocument {
  readonly id: string;
  readonly kind: DocumentKind;
  readonly number: string;
  readonly customerId: string;
  readonly customerName: string;
  readonly issueDate: IsoDate;
  /** Kept for indexes: when the next open part is due; see `nextDue`. Of a quote the last day it holds. */
  readonly dueDate: IsoDate;
  readonly content: Content;
  readonly figures: CalcResult;
  readonly seal: Seal;
  readonly seriesId: string;
  /** Position in its series, from 1. */
  readonly position: number;
  /** Id of the tax period that reports it. */
  readonly periodId: string;
  /** Its own period was filed already, so a later one reports it. */
  readonly late: boolean;
  /** Empty for a quote, which posts nothing. */
  readonly entryId: string;
  readonly issuedAt: string;
  /** Still to be settled, signed, in the document's currency: above zero the customer owes us. */
  readonly open: Minor;
  /** The same as it stands on the receivables account, in home currency. */
  readonly openHome: Minor;
  /** By money, tax withheld, other credits, and small differences that were closed with them. */
  readonly received: Minor;
  /** Taken back by credit notes. */
  readonly credited: Minor;
  /** Given up as a bad debt. */
  readonly writtenOff: Minor;
  readonly creditNotes: readonly DocumentLink[];
  /** 1 while something is open: database indexes hold no booleans. */
  readonly isOpen: 0 | 1;
  /** Kept for indexes; follows from the rest. */
  readonly state: DocumentState;
  /** What belongs together, such as a quote and its invoices, shares this id. */
  readonly familyId: string;
  /** Day it went out; empty while it has not, as far as the book knows. */
  readonly sentOn: IsoDate | '';
  readonly cancelled: { readonly on: IsoDate; readonly reason: string; readonly entryId: string } | null;
  readonly quote: QuoteStanding | null;
  readonly tags: readonly string[];
  /** For ourselves; never printed, not sealed. */
  readonly remarks: string;
  readonly styleId: string;
  /** The look it was issued in; empty for the plain one. */
  readonly lookId: string;
  /** Amount as text of even length, for indexes; without sign. */
  readonly amountKey: string;
  /** Words it is found by; any part of any of them finds it. */
  readonly words: readonly string[];
}

export type DocumentState =
  | 'issued'
  | 'part-paid'
  | 'paid'
  | 'credited'
  | 'written-off'
  | 'cancelled'
  | 'sent'
  | 'accepted'
  | 'declined'
  | 'replaced'
  | 'part-invoiced'
  | 'invoiced';

export const DOCUMENT_STATES: readonly DocumentState[] = [
  'issued',
  'part-paid',
  'paid',
  'credited',
  'written-off',
  'cancelled',
  'sent',
  'accepted',
  'declined',
  'replaced',
  'part-invoiced',
  'invoiced',
];

type Standing = Pick<
  IssuedDocument,
  'open' | 'received' | 'credited' | 'writtenOff' | 'cancelled' | 'quote' | 'figures' | 'content'
>;

/** What a quote's lines come to, by which stages are measured. */
export function quotedValue({ figures }: Pick<IssuedDocument, 'figures'>): Minor {
  const { lineValue, allowances, charges } = figures.totals;
  return plus(minus(lineValue, allowances), charges);
}

function quoteState(quote: QuoteStanding, document: Standing): DocumentState {
  if (quote.replacedBy !== null) return 'replaced';
  if (quote.billed > 0n) return quote.billed < quotedValue(document) ? 'part-invoiced' : 'invoiced';
  return quote.answer?.kind ?? 'sent';
}

/** State by settlement or, for a quote, by its answer. Overdue and lapsed depend on the day and are asked apart. */
export function stateOf(document: Standing): DocumentState {
  if (document.quote !== null) return quoteState(document.quote, document);
  if (document.cancelled !== null) return 'cancelled';
  if (document.open === 0n) {
    if (document.writtenOff !== 0n) return 'written-off';
    return document.received === 0n && document.credited !== 0n ? 'credited' : 'paid';
  }
  return document.received !== 0n ? 'part-paid' : 'issued';
}

/**
 * The day on which the next part of what is open falls due: instalments each have their own, and what
 * is settled covers the earliest of them.
 */
export function nextDue({ content, figures, open }: Standing): IsoDate {
  const { instalments = [], dueDate } = content;
  if (open <= 0n) return dueDate;
  const all = owedOf(content, figures);
  let percent = ZERO;
  for (const instalment of instalments) {
    percent = add(percent, ratioOf(instalment.percent));
    // Settled so far, all − open, against this part and those before it.
    if (compare(whole(all - open), multiply(whole(all), { n: percent.n, d: percent.d * 100n })) < 0)
      return instalment.due;
  }
  return dueDate;
}

/** The document with its kept state and due date brought up to date. */
export function restated(document: IssuedDocument): IssuedDocument {
  return { ...document, state: stateOf(document), dueDate: nextDue(document) };
}

/** True for an open invoice of which a part is due before today. */
export function isOverdue(document: Pick<IssuedDocument, 'kind' | 'open' | 'dueDate'>, today: IsoDate): boolean {
  return KINDS[document.kind].owed && document.open > 0n && document.dueDate < today;
}

/** True for a quote that nobody answered while it held. */
export function isLapsed(document: Pick<IssuedDocument, 'state' | 'dueDate'>, today: IsoDate): boolean {
  return document.state === 'sent' && document.dueDate < today;
}

/** Quarters of the total that are settled, 0 to 4, for the mark of a part-paid document. */
export function quartersPaid(document: Pick<IssuedDocument, 'open' | 'figures'>): number {
  const all = document.figures.totals.payable;
  if (all === 0n) return 4;
  const paid = all - (document.open < 0n ? -document.open : document.open);
  return Number((4n * paid) / all);
}

/** Gross as it counts in the customer's account: credit notes count down. */
export function owedOf(content: Content, figures: CalcResult): Minor {
  return signed(content, minor(figures.totals.payable - withheldOnIssue(content.withholding ?? [], figures)));
}

/** The same in home currency, as it is posted to receivables. */
export function owedHomeOf(content: Content, figures: CalcResult): Minor {
  const counted = bookFigures(content, figures);
  const withheld = (content.withholding ?? []).reduce(
    (sum, { when }, i) => (when === 'on-issue' ? sum + (counted.withheld[i] ?? 0n) : sum),
    0n,
  );
  return signed(content, minor(counted.payable - withheld));
}

/**
 * The document after `amount` of it was settled, by money, by its own credit notes or as a bad debt; `home` goes of what stands on
 * receivables. Below zero for one that is undone.
 */
export function settled(
  document: IssuedDocument,
  by: 'received' | 'credited' | 'writtenOff',
  amount: Minor,
  home: Minor,
): IssuedDocument {
  const open = minus(document.open, amount);
  return restated({
    ...document,
    open,
    openHome: minus(document.openHome, home),
    isOpen: open === NOTHING ? 0 : 1,
    [by]: plus(document[by], amount),
  });
}

const KEY_DIGITS = 18;

/** An amount in currency units as text that sorts as the amount does; its sign is left out. */
export function amountKeyOf(units: string): string {
  const [whole = '0', decimals = ''] = units.replace('-', '').split('.');
  return `${whole.padStart(KEY_DIGITS, '0')}.${decimals.padEnd(4, '0').slice(0, 4)}`;
}

/** Words of a document beyond which it is not found; a text of a thousand words would swell the index. */
const MOST_WORDS = 250;

/**
 * What a document is found by: numbers, names, references, texts, where and how it was delivered, what was written beside
 * it, and what it comes to.
 */
export function documentWords(
  content: Content,
  figures: CalcResult,
  { tags, remarks }: Pick<IssuedDocument, 'tags' | 'remarks'>,
): readonly string[] {
  const { buyer, currency } = content;
  const { payable, net } = figures.totals;
  const words = wordsIn([
    content.number,
    buyer.name,
    buyer.address.city,
    buyer.contact ?? '',
    buyer.taxNumber,
    content.delivery?.city ?? '',
    content.carrier ?? '',
    content.tracking ?? '',
    content.reason ?? '',
    remarks,
    content.buyerReference,
    content.orderNumber,
    content.subject ?? '',
    content.salesperson ?? '',
    ...tags,
    content.issueDate.slice(0, 4),
    ...[payable, net].map((amount) => writeMoney(amount, currency)),
    ...content.lines.map((line) => line.description),
    ...(content.adjustments ?? []).map((adjustment) => adjustment.text),
    content.note,
  ]);
  return words.slice(0, MOST_WORDS);
}

/** The amount of a document for its index. */
export function amountKey(figures: CalcResult): string {
  const { payable } = figures.totals;
  return amountKeyOf(writeUnits(payable < 0n ? minor(-payable) : payable, exponentOf(figures.currency)));
}
