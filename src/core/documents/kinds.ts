/** What sets the kinds of documents apart, for all that asks what may be done with one. */
export interface KindTraits {
  /** 1 where its figures count as sales, −1 where it takes them back. */
  readonly sign: 1n | -1n;
  /** It is given to somebody: printed, saved as PDF, marked as sent, numbered by day. */
  readonly goesOut: boolean;
  /** It has an e-invoice. */
  readonly eInvoice: boolean;
  /** A customer owes it, and pays it. */
  readonly owed: boolean;
  /** A credit note can take it back. */
  readonly creditable: boolean;
  /** It can be taken back whole while it has not gone out. */
  readonly cancellable: boolean;
  /** A draft can be written from what it says. */
  readonly copied: boolean;
}

const NOTHING_MORE = { eInvoice: false, owed: false, creditable: false, cancellable: false, copied: false };

/** The kinds of documents that a book holds. */
export type DocumentKind = 'quote' | 'invoice' | 'credit-note' | 'takings' | 'opening';

export const KINDS: Readonly<Record<DocumentKind, KindTraits>> = {
  quote: { ...NOTHING_MORE, sign: 1n, goesOut: true, copied: true },
  invoice: {
    sign: 1n,
    goesOut: true,
    eInvoice: true,
    owed: true,
    creditable: true,
    cancellable: true,
    copied: true,
  },
  'credit-note': { ...NOTHING_MORE, sign: -1n, goesOut: true, eInvoice: true },
  takings: { ...NOTHING_MORE, sign: 1n, goesOut: false, cancellable: true },
  opening: { ...NOTHING_MORE, sign: 1n, goesOut: false, owed: true },
};

export const DOCUMENT_KINDS = Object.keys(KINDS) as readonly DocumentKind[];

/** Credit notes count down, in entries and returns; all else counts up. */
export function signOf(kind: DocumentKind): 1n | -1n {
  return KINDS[kind].sign;
}
