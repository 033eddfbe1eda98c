/** What sets the kinds of documents apart, for all that asks what may be done with one. */
export interface KindTraits {
  /** 1 where its figures count as sales, −1 where it takes them back. */
  readonly sign: 1n | -1n;
  /** It is entered in the journal, and counts in returns. */
  readonly posts: boolean;
  /** It is given to somebody: printed, saved as PDF, marked as sent, numbered by day. */
  readonly goesOut: boolean;
  /** It has an e-invoice. */
  readonly eInvoice: boolean;
  /** A customer owes it, and pays it. */
  readonly owed: boolean;
  /** It is set off against what a customer owes. */
  readonly creditsOwed: boolean;
  /** A credit note can take it back. */
  readonly creditable: boolean;
  /** It can be taken back whole while it has not gone out. */
  readonly cancellable: boolean;
  /** A draft can be written from what it says. */
  readonly copied: boolean;
}

const NOTHING_MORE = {
  posts: true,
  eInvoice: false,
  owed: false,
  creditsOwed: false,
  creditable: false,
  cancellable: false,
  copied: false,
};

/** The kinds of documents that a book holds. */
export type DocumentKind = 'quote' | 'invoice' | 'credit-note' | 'takings' | 'opening';

export const KINDS: Readonly<Record<DocumentKind, KindTraits>> = {
  quote: { ...NOTHING_MORE, sign: 1n, posts: false, goesOut: true, copied: true },
  invoice: {
    sign: 1n,
    posts: true,
    goesOut: true,
    eInvoice: true,
    owed: true,
    creditsOwed: false,
    creditable: true,
    cancellable: true,
    copied: true,
  },
  'credit-note': { ...NOTHING_MORE, sign: -1n, goesOut: true, eInvoice: true, creditsOwed: true },
  takings: { ...NOTHING_MORE, sign: 1n, goesOut: false, cancellable: true },
  opening: { ...NOTHING_MORE, sign: 1n, goesOut: false, owed: true },
};

/** What a draft will become. A cash sale is an invoice and its receipt in one step. */
export type DraftKind = 'invoice' | 'quote' | 'cash-sale';

export interface DraftTraits {
  /** The kind of document it is issued as. */
  readonly becomes: 'invoice' | 'quote';
  /** It is paid as it is issued, so it has no due date and its tax falls due at once. */
  readonly paidAtOnce: boolean;
}

export const DRAFT_KINDS: Readonly<Record<DraftKind, DraftTraits>> = {
  invoice: { becomes: 'invoice', paidAtOnce: false },
  quote: { becomes: 'quote', paidAtOnce: false },
  'cash-sale': { becomes: 'invoice', paidAtOnce: true },
};

/** What holds of the document that a draft becomes. */
export function traitsOfDraft(kind: DraftKind): KindTraits & DraftTraits {
  const own = DRAFT_KINDS[kind];
  return { ...KINDS[own.becomes], ...own };
}

export const DOCUMENT_KINDS = Object.keys(KINDS) as readonly DocumentKind[];

/** The kinds that customers owe. */
export const OWED_KINDS = DOCUMENT_KINDS.filter((kind) => KINDS[kind].owed);

/** Credit notes count down, in entries and returns; all else counts up. */
export function signOf(kind: DocumentKind): 1n | -1n {
  return KINDS[kind].sign;
}
