import type { Attachment } from '@/core/documents/attachment';
import type { SavedView } from '@/core/documents/documentFilter';
import type { Draft } from '@/core/documents/draft';
import type { ExchangeRate } from '@/core/documents/exchangeRate';
import type { IssuedDocument } from '@/core/documents/issued';
import type { Item } from '@/core/documents/item';
import type { Look } from '@/core/documents/look';
import type { PriceList } from '@/core/documents/priceList';
import type { Series } from '@/core/documents/series';
import type { DocumentStyle } from '@/core/documents/style';
import type { Transmission } from '@/core/exchange/transmission';
import type { IsoDate } from '@/core/kernel/date';
import type { Result } from '@/core/kernel/result';
import type { Account } from '@/core/ledger/account';
import type { JournalEntry, JournalLine } from '@/core/ledger/entry';
import type { Business } from '@/core/parties/business';
import type { Certificate } from '@/core/parties/certificate';
import type { Customer } from '@/core/parties/customer';
import type { TaxPeriod } from '@/core/periods/return';
import type { TaxEntry } from '@/core/periods/taxEntry';
import type { Receipt } from '@/core/receipts/receipt';
import type { DecisionRow } from '@/core/tax/decisionTable';
import type { Jurisdiction } from '@/core/tax/jurisdiction';
import type { Place } from '@/core/tax/place';
import type { Registration } from '@/core/tax/registration';
import type { Tax } from '@/core/tax/tax';
import type { TaxCode } from '@/core/tax/taxCode';
import type { WithholdingType } from '@/core/tax/withholding';

/** The book's own row: what it is kept for. */
export interface Book {
  readonly id: 'book';
  readonly business: Business;
  readonly begunAt: string;
}

/** A customer with the keys it is found by. */
export interface CustomerRow extends Customer {
  readonly keys: readonly string[];
}

/** An item with the keys it is found by. */
export interface ItemRow extends Item {
  readonly keys: readonly string[];
}

/** A place with the keys that addresses find it by. */
export interface PlaceRow extends Place {
  readonly keys: readonly string[];
}

/** The decision table as one row, so that its order is written whole. */
export interface DecisionTable {
  readonly id: 'table';
  readonly rows: readonly DecisionRow[];
}

/** Tables of truth: what actions write and archives hold. Kept balances are derived from them. */
export interface TruthRows {
  book: Book;
  registrations: Registration;
  jurisdictions: Jurisdiction;
  taxes: Tax;
  taxCodes: TaxCode;
  places: PlaceRow;
  decisionTables: DecisionTable;
  withholdingTypes: WithholdingType;
  certificates: Certificate;
  priceLists: PriceList;
  exchangeRates: ExchangeRate;
  customers: CustomerRow;
  items: ItemRow;
  accounts: Account;
  series: Series;
  styles: DocumentStyle;
  looks: Look;
  savedViews: SavedView;
  attachments: Attachment;
  drafts: Draft;
  documents: IssuedDocument;
  receipts: Receipt;
  journal: JournalEntry;
  journalLines: JournalLine;
  taxEntries: TaxEntry;
  taxPeriods: TaxPeriod;
  transmissions: Transmission;
}

export type TruthTable = keyof TruthRows;

type RowsOf<Tables extends TruthTable> = { readonly [T in Tables]?: readonly TruthRows[T][] };

/** What a decision wants written, all together or not at all. */
export interface Changes {
  /** New rows; one that is there already makes the whole fail. */
  readonly add?: RowsOf<TruthTable>;
  /** New or replaced rows. Journal and tax entries are append-only and not among them. */
  readonly put?: RowsOf<Exclude<TruthTable, 'journal' | 'journalLines' | 'taxEntries'>>;
  readonly remove?: {
    readonly drafts?: readonly string[];
    readonly places?: readonly string[];
    readonly taxes?: readonly string[];
    readonly taxCodes?: readonly string[];
    readonly savedViews?: readonly string[];
    readonly attachments?: readonly string[];
  };
  /** Null only where a draft is kept while it is typed: that is no business event. */
  readonly audit: {
    /** What it is about, in words: `INV-2026-0142`. */
    readonly subject: string;
    /** Ids of what it concerns, by which the history of an object is found. */
    readonly about?: readonly string[];
    readonly before?: unknown;
    readonly after?: unknown;
  } | null;
}

/** One line of the audit trail: when, who, what, before and after. */
export interface AuditEvent {
  readonly id: string;
  readonly at: string;
  readonly operator: string;
  /** Name of the action. */
  readonly action: string;
  readonly subject: string;
  readonly about?: readonly string[];
  readonly before?: unknown;
  readonly after?: unknown;
}

/** Everything an archive of the whole book holds. */
export interface BookRows extends TruthRows {
  audit: AuditEvent;
}

export type BookTable = keyof BookRows;

/** All rows of a book, by table. */
export type BookContent = { readonly [T in BookTable]: readonly BookRows[T][] };

/** All tables of a book, in the order an archive lists them. */
export const BOOK_TABLES: readonly BookTable[] = [
  'book',
  'registrations',
  'jurisdictions',
  'taxes',
  'taxCodes',
  'places',
  'decisionTables',
  'withholdingTypes',
  'certificates',
  'priceLists',
  'exchangeRates',
  'customers',
  'items',
  'accounts',
  'series',
  'styles',
  'looks',
  'savedViews',
  'attachments',
  'drafts',
  'documents',
  'receipts',
  'journal',
  'journalLines',
  'taxEntries',
  'taxPeriods',
  'transmissions',
  'audit',
];

/** What came of an action's pure part: a refusal, or an answer and what to write. */
export type Decision<T> = Result<{ readonly value: T; readonly changes: Changes }>;

/** Everything an action may know of the outside world, passed in so that core stays deterministic. */
export interface Moment {
  /** ISO instant. */
  readonly now: string;
  readonly today: IsoDate;
  /** Name of the person at this browser. */
  readonly operator: string;
  readonly newId: () => string;
}
