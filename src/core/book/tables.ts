import type * as yup from 'yup';
import type { BankLine, BankStatement } from '@/core/bank/bankLine';
import { type BankRule, bankRuleSchema } from '@/core/bank/bankRule';
import type { Reconciliation } from '@/core/bank/reconciliation';
import { itemSchema } from '@/core/catalogue/item';
import { type PriceList, priceListSchema } from '@/core/catalogue/priceList';
import { type ExchangeRate, exchangeRateSchema } from '@/core/currency/exchangeRate';
import type { Revaluation } from '@/core/currency/revaluation';
import type { Mail, MailFileData } from '@/core/delivery/mail';
import { type MessageTemplate, messageTemplateSchema } from '@/core/delivery/messageTemplate';
import type { Transmission } from '@/core/delivery/transmission';
import type { Attachment } from '@/core/documents/attachment';
import type { DeferralPlan } from '@/core/documents/deferralPlan';
import { type SavedView, savedViewSchema } from '@/core/documents/documentFilter';
import type { Draft } from '@/core/documents/draft';
import type { IssuedDocument } from '@/core/documents/issued';
import type { Look } from '@/core/documents/look';
import { type Recurring, type RecurringMade, recurringSchema } from '@/core/documents/recurring';
import { type CustomerGroup, customerGroupSchema, type Run, type RunRow, runSchema } from '@/core/documents/run';
import { type Series, seriesSchema } from '@/core/documents/series';
import { type DocumentStyle, styleSchema } from '@/core/documents/style';
import type { Account } from '@/core/ledger/account';
import type { JournalEntry, JournalLine } from '@/core/ledger/entry';
import type { YearClosing } from '@/core/ledger/fiscalYear';
import type { JournalTemplate } from '@/core/ledger/journalTemplate';
import { type BankAccount, bankAccountSchema } from '@/core/parties/bankAccount';
import { businessSchema } from '@/core/parties/business';
import { type Certificate, certificateSchema } from '@/core/parties/certificate';
import { customerSchema } from '@/core/parties/customer';
import type { ReopenedFiling, ReturnBoxes, TaxPeriod } from '@/core/returns/return';
import type { TaxEntry } from '@/core/returns/taxEntry';
import type { TaxPayment } from '@/core/returns/taxPayment';
import type { Allocation } from '@/core/settlement/allocation';
import type { Receipt } from '@/core/settlement/receipt';
import type { Refund } from '@/core/settlement/refund';
import type { Reminder, ReminderHold } from '@/core/settlement/reminder';
import type { Withheld, WithholdingCertificate, WithholdingClaim } from '@/core/settlement/withholding';
import { decisionRowSchema } from '@/core/tax/decisionTable';
import { type Jurisdiction, jurisdictionSchema } from '@/core/tax/jurisdiction';
import { placeSchema } from '@/core/tax/place';
import { type Registration, registrationSchema } from '@/core/tax/registration';
import { type Tax, taxSchema } from '@/core/tax/tax';
import { type TaxCode, taxCodeSchema } from '@/core/tax/taxCode';
import { type WithholdingType, withholdingTypeSchema } from '@/core/tax/withholding';
import { CERTIFICATE_COLUMNS } from './columns/certificates';
import type { Columns } from './columns/columns';
import { CUSTOMER_COLUMNS } from './columns/customers';
import { EXCHANGE_RATE_COLUMNS } from './columns/exchangeRates';
import { ITEM_COLUMNS } from './columns/items';
import { JURISDICTION_COLUMNS } from './columns/jurisdictions';
import { PLACE_COLUMNS } from './columns/places';
import { TAX_COLUMNS } from './columns/taxes';
import { ROW_SHAPES } from './rowShapes';
import type { AuditEvent, Book, CustomerRow, DecisionTable, ItemRow, PlaceRow } from './rows';
import type { Shape } from './shape';

/** Rows of another table that a row names, and that must be there. */
interface Reference<Row> {
  readonly table: string;
  readonly ids: (row: Row) => readonly string[];
  /** Where a fault is said to lie: `customer`. Empty for the row itself. */
  readonly at: string;
  /** What should be there: `a customer of the book`. */
  readonly what: string;
}

/**
 * By an index that begins with the customer; by one over the keys of the customer's rows in another table; or, where
 * there are only a few rows, by a look at each.
 */
type FoundBy<Row> =
  | { readonly index: string; readonly through?: string }
  | { readonly customerOf: (row: Row) => string };

/** Everything that is known of one table of the book; all that handles tables derives from it. */
export interface TableDescriptor<Row> {
  /** Field that a row is found by; no two rows hold the same. */
  readonly key: keyof Row & string;
  /**
   * Primary key and indexes in the words of the database, by the version of the book that stated them. The first is
   * the version that the table came with.
   */
  readonly indexes: Readonly<Record<number, string>>;
  /** What a row of a stranger's file must be like before anything looks at it. */
  readonly shape: Shape;
  /** The schema that a form checks a record by, and the records in a row that it is for. */
  readonly records?: { readonly schema: yup.Schema; readonly of: (row: Row) => readonly unknown[] };
  /** `appended`: rows are added and never change. `removable`: rows may be taken away. */
  readonly lasts?: 'appended' | 'removable';
  /** What a row is called where a fault is told; the table's name and its key unless it is given. */
  readonly called?: (row: Row) => string;
  readonly references?: readonly Reference<Row>[];
  /** How its records stand in a CSV file, where they go out to one and come in from one. */
  readonly columns?: Columns<Row>;
  /** How rows that stand under a customer are found, and how one is moved to another when two are merged. */
  readonly customers?: {
    readonly found: FoundBy<Row>;
    readonly moved: (row: Row, customerId: string) => object;
  };
}

type Unmarked<Row> = Omit<TableDescriptor<Row>, 'lasts'>;

const table = <Row>(descriptor: Unmarked<Row>): TableDescriptor<Row> => descriptor;

/** A table whose rows are added and never change. */
const appended = <Row>(descriptor: Unmarked<Row>): TableDescriptor<Row> & { readonly lasts: 'appended' } => ({
  ...descriptor,
  lasts: 'appended',
});

/** A table that rows may be taken away from. */
const removable = <Row>(descriptor: Unmarked<Row>): TableDescriptor<Row> & { readonly lasts: 'removable' } => ({
  ...descriptor,
  lasts: 'removable',
});

/** A table that goes out to CSV and comes in from it. */
const inColumns = <Row, Descriptor extends TableDescriptor<Row>>(
  descriptor: Descriptor & TableDescriptor<Row>,
  columns: Columns<Row>,
): Descriptor & { readonly columns: Columns<Row> } => ({ ...descriptor, columns });

/** Rows that are themselves what a form keeps. */
const each = (schema: yup.Schema) => ({ schema, of: (row: unknown) => [row] });

const toCustomer = <Row extends { readonly customerId: string }>(row: Row, customerId: string): Row => ({
  ...row,
  customerId,
});

const CUSTOMER = { table: 'customers', at: 'customer', what: 'a customer of the book' } as const;
const REGISTRATION = { table: 'registrations', at: 'registration', what: 'a registration of the book' } as const;
const BANK_ACCOUNT = {
  table: 'bankAccounts',
  at: 'account',
  what: 'a bank account of the book',
  ids: ({ bankAccountId }: { readonly bankAccountId: string }) => [bankAccountId],
} as const;
const ENTRY = { table: 'journal', at: 'entry', what: 'its journal entry' } as const;

/**
 * Tables of the book, in the order an archive lists them: what actions write and archives hold. Balances that are kept
 * up beside them are in `DERIVED_TABLES`.
 */
export const TABLES = {
  book: table<Book>({
    key: 'id',
    indexes: { 1: 'id' },
    shape: ROW_SHAPES.book,
    records: { schema: businessSchema, of: ({ business }) => [business] },
  }),
  registrations: table<Registration>({
    key: 'id',
    indexes: { 1: 'id' },
    shape: ROW_SHAPES.registrations,
    records: each(registrationSchema),
  }),
  jurisdictions: inColumns(
    table<Jurisdiction>({
      key: 'id',
      indexes: { 2: 'id, parentId' },
      shape: ROW_SHAPES.jurisdictions,
      records: each(jurisdictionSchema),
    }),
    JURISDICTION_COLUMNS,
  ),
  taxes: inColumns(
    removable<Tax>({
      key: 'id',
      indexes: { 2: 'id, jurisdictionId' },
      shape: ROW_SHAPES.taxes,
      records: each(taxSchema),
    }),
    TAX_COLUMNS,
  ),
  taxCodes: removable<TaxCode>({
    key: 'id',
    indexes: { 1: 'id' },
    shape: ROW_SHAPES.taxCodes,
    records: each(taxCodeSchema),
  }),
  places: inColumns(
    removable<PlaceRow>({
      key: 'id',
      indexes: { 2: 'id, name, *keys' },
      shape: ROW_SHAPES.places,
      records: each(placeSchema),
    }),
    PLACE_COLUMNS,
  ),
  decisionTables: table<DecisionTable>({
    key: 'id',
    indexes: { 2: 'id' },
    shape: ROW_SHAPES.decisionTables,
    records: { schema: decisionRowSchema, of: ({ rows }) => rows },
  }),
  withholdingTypes: table<WithholdingType>({
    key: 'id',
    indexes: { 2: 'id' },
    shape: ROW_SHAPES.withholdingTypes,
    records: each(withholdingTypeSchema),
  }),
  certificates: inColumns(
    table<Certificate>({
      key: 'id',
      indexes: { 2: 'id, customerId, until' },
      shape: ROW_SHAPES.certificates,
      called: ({ id }) => `certificate ${id}`,
      references: [{ ...CUSTOMER, ids: ({ customerId }) => [customerId] }],
      customers: { found: { index: 'customerId' }, moved: toCustomer },
      records: each(certificateSchema),
    }),
    CERTIFICATE_COLUMNS,
  ),
  priceLists: table<PriceList>({
    key: 'id',
    indexes: { 2: 'id' },
    shape: ROW_SHAPES.priceLists,
    records: each(priceListSchema),
  }),
  exchangeRates: inColumns(
    table<ExchangeRate>({
      key: 'id',
      indexes: { 2: 'id, [currency+date]' },
      shape: ROW_SHAPES.exchangeRates,
      records: each(exchangeRateSchema),
    }),
    EXCHANGE_RATE_COLUMNS,
  ),
  customers: inColumns(
    removable<CustomerRow>({
      key: 'id',
      indexes: { 1: 'id, name, *keys', 3: 'id, name, parentId, *keys' },
      shape: ROW_SHAPES.customers,
      customers: { found: { index: 'parentId' }, moved: (child, parentId) => ({ ...child, parentId }) },
      records: each(customerSchema),
    }),
    CUSTOMER_COLUMNS,
  ),
  items: inColumns(
    removable<ItemRow>({
      key: 'id',
      indexes: { 1: 'id, name, *keys' },
      shape: ROW_SHAPES.items,
      records: each(itemSchema),
    }),
    ITEM_COLUMNS,
  ),
  accounts: table<Account>({ key: 'code', indexes: { 1: 'code' }, shape: ROW_SHAPES.accounts }),
  bankAccounts: removable<BankAccount>({
    key: 'id',
    indexes: { 9: 'id' },
    shape: ROW_SHAPES.bankAccounts,
    called: ({ name }) => `bank account ${name}`,
    records: each(bankAccountSchema),
    references: [
      { table: 'accounts', at: 'account', what: 'an account of the chart', ids: ({ account }) => [account] },
      { ...ENTRY, at: 'opening balance', ids: ({ opening }) => (opening?.entryId ? [opening.entryId] : []) },
    ],
  }),
  bankStatements: removable<BankStatement>({
    key: 'id',
    indexes: { 9: 'id, bankAccountId, [bankAccountId+until]' },
    shape: ROW_SHAPES.bankStatements,
    called: ({ fileName }) => `statement ${fileName}`,
    references: [BANK_ACCOUNT],
  }),
  bankLines: removable<BankLine>({
    key: 'id',
    indexes: {
      9: 'id, statementId, [bankAccountId+date], [bankAccountId+isOpen+date], [bankAccountId+key], *entryIds',
    },
    shape: ROW_SHAPES.bankLines,
    called: ({ date, position }) => `bank line ${date}, ${position}`,
    references: [
      BANK_ACCOUNT,
      { table: 'bankStatements', at: 'statement', what: 'its statement', ids: ({ statementId }) => [statementId] },
      { ...ENTRY, at: 'matches', ids: ({ entryIds }) => entryIds },
    ],
  }),
  bankRules: removable<BankRule>({
    key: 'id',
    indexes: { 9: 'id' },
    shape: ROW_SHAPES.bankRules,
    records: each(bankRuleSchema),
    references: [
      { table: 'accounts', at: 'account', what: 'an account of the chart', ids: ({ account }) => [account] },
    ],
  }),
  reconciliations: appended<Reconciliation>({
    key: 'id',
    indexes: { 9: 'id, [bankAccountId+date]' },
    shape: ROW_SHAPES.reconciliations,
    called: ({ date }) => `reconciliation ${date}`,
    references: [BANK_ACCOUNT],
  }),
  series: table<Series>({ key: 'id', indexes: { 1: 'id' }, shape: ROW_SHAPES.series, records: each(seriesSchema) }),
  styles: removable<DocumentStyle>({
    key: 'id',
    indexes: { 3: 'id' },
    shape: ROW_SHAPES.styles,
    records: each(styleSchema),
  }),
  looks: table<Look>({
    key: 'id',
    indexes: { 5: 'id' },
    shape: ROW_SHAPES.looks,
    records: { schema: styleSchema, of: ({ style }) => [style] },
  }),
  savedViews: removable<SavedView>({
    key: 'id',
    indexes: { 3: 'id, name' },
    shape: ROW_SHAPES.savedViews,
    customers: {
      found: { customerOf: ({ filter }) => filter.customerId },
      moved: (view, customerId) => ({ ...view, filter: { ...view.filter, customerId } }),
    },
    records: each(savedViewSchema),
  }),
  attachments: removable<Attachment>({
    key: 'id',
    indexes: { 3: 'id, ownerId' },
    shape: ROW_SHAPES.attachments,
    // The owner is a draft, a document, a receipt, a withholding certificate or a customer; ids are never the same.
    customers: { found: { index: 'ownerId' }, moved: (file, ownerId) => ({ ...file, ownerId }) },
  }),
  drafts: removable<Draft>({
    key: 'id',
    indexes: { 1: 'id, savedAt, *keys', 3: 'id, savedAt, familyId, customerId, *keys' },
    shape: ROW_SHAPES.drafts,
    customers: {
      found: { index: 'customerId' },
      moved: (draft, customerId) => ({ ...draft, customerId, revision: draft.revision + 1 }),
    },
  }),
  documents: table<IssuedDocument>({
    key: 'id',
    indexes: {
      1: 'id, [issueDate+number], [periodId+number], [customerId+isOpen], [isOpen+kind+dueDate], [kind+position], number, *keys',
      2: 'id, [issueDate+number], [periodId+number], [customerId+isOpen], [customerId+issueDate], [isOpen+kind+dueDate], [kind+position], number, *keys',
      3: 'id, [issueDate+number], [periodId+number], [customerId+isOpen], [customerId+issueDate], [isOpen+kind+dueDate], [kind+issueDate], [state+issueDate], [seriesId+position], amountKey, familyId, number, *tags, *words',
    },
    shape: ROW_SHAPES.documents,
    called: ({ number }) => number,
    references: [
      { table: 'series', at: 'series', what: 'a series of the book', ids: ({ seriesId }) => [seriesId] },
      { ...REGISTRATION, ids: ({ content }) => [content.registrationId] },
      { ...CUSTOMER, ids: ({ kind, customerId }) => (kind === 'takings' ? [] : [customerId]) },
      { ...ENTRY, ids: ({ kind, entryId }) => (kind === 'quote' ? [] : [entryId]) },
      {
        table: 'journal',
        at: 'cancelled',
        what: 'the entry that takes it back',
        ids: ({ cancelled }) => (cancelled === null ? [] : [cancelled.entryId]),
      },
      {
        table: 'documents',
        at: 'credit notes',
        what: 'its credit note',
        ids: ({ creditNotes }) => creditNotes.map(({ id }) => id),
      },
    ],
    customers: { found: { index: '[customerId+issueDate]' }, moved: toCustomer },
  }),
  receipts: table<Receipt>({
    key: 'id',
    indexes: {
      1: 'id, [date+number], customerId, *keys',
      3: 'id, [date+number], customerId, *settles, *keys',
      6: 'id, [date+number], customerId, [customerId+isOpen], *keys',
      7: 'id, number, [date+number], customerId, [customerId+isOpen], *keys',
    },
    shape: ROW_SHAPES.receipts,
    called: ({ number }) => `receipt ${number}`,
    references: [
      { ...CUSTOMER, ids: ({ customerId }) => [customerId] },
      { ...ENTRY, ids: ({ entryId, dishonoured }) => [entryId, ...(dishonoured?.entryIds ?? [])] },
      {
        table: 'accounts',
        at: 'parts',
        what: 'accounts of the chart',
        ids: ({ parts }) => parts.map(({ account }) => account),
      },
    ],
    customers: { found: { index: 'customerId' }, moved: toCustomer },
  }),
  refunds: table<Refund>({
    key: 'id',
    indexes: { 6: 'id, customerId, [date+number]' },
    shape: ROW_SHAPES.refunds,
    called: ({ number }) => `refund ${number}`,
    references: [
      { ...CUSTOMER, ids: ({ customerId }) => [customerId] },
      { ...ENTRY, ids: ({ entryId, undone }) => [entryId, ...(undone === null ? [] : [undone.entryId])] },
    ],
    customers: { found: { index: 'customerId' }, moved: toCustomer },
  }),
  allocations: table<Allocation>({
    key: 'id',
    indexes: { 6: 'id, customerId, creditId, debtId, date, undoneOn' },
    shape: ROW_SHAPES.allocations,
    called: ({ creditNumber, debtNumber }) => `allocation of ${creditNumber} to ${debtNumber}`,
    references: [
      { ...CUSTOMER, ids: ({ customerId }) => [customerId] },
      {
        table: 'receipts',
        at: 'credit',
        what: 'a receipt of the book',
        ids: ({ creditKind, creditId }) => (creditKind === 'receipt' ? [creditId] : []),
      },
      {
        table: 'documents',
        at: 'documents',
        what: 'documents of the book',
        ids: ({ creditKind, creditId, debtKind, debtId }) => [
          ...(creditKind === 'credit-note' ? [creditId] : []),
          ...(debtKind === 'document' ? [debtId] : []),
        ],
      },
      {
        table: 'refunds',
        at: 'debt',
        what: 'a refund of the book',
        ids: ({ debtKind, debtId }) => (debtKind === 'refund' ? [debtId] : []),
      },
      { ...ENTRY, ids: ({ entryIds, undone }) => [...entryIds, ...(undone?.entryIds ?? [])] },
    ],
    customers: { found: { index: 'customerId' }, moved: toCustomer },
  }),
  withheld: table<Withheld>({
    key: 'id',
    indexes: { 7: 'id, customerId, documentId, receiptId, [typeId+isOpen], [isOpen+date]' },
    shape: ROW_SHAPES.withheld,
    called: ({ typeName, documentNumber }) => `${typeName} withheld from ${documentNumber}`,
    references: [
      { ...CUSTOMER, ids: ({ customerId }) => [customerId] },
      { table: 'documents', at: 'document', what: 'its document', ids: ({ documentId }) => [documentId] },
      {
        table: 'receipts',
        at: 'receipt',
        what: 'its receipt',
        ids: ({ receiptId }) => (receiptId === '' ? [] : [receiptId]),
      },
    ],
    customers: { found: { index: 'customerId' }, moved: toCustomer },
  }),
  withholdingCertificates: removable<WithholdingCertificate>({
    key: 'id',
    indexes: { 7: 'id, customerId' },
    shape: ROW_SHAPES.withholdingCertificates,
    called: ({ number }) => `withholding certificate ${number}`,
    references: [
      { ...CUSTOMER, ids: ({ customerId }) => [customerId] },
      {
        table: 'withheld',
        at: 'covers',
        what: 'what it covers',
        ids: ({ covers }) => covers.map(({ withheldId }) => withheldId),
      },
    ],
    customers: { found: { index: 'customerId' }, moved: toCustomer },
  }),
  withholdingClaims: table<WithholdingClaim>({
    key: 'id',
    indexes: { 7: 'id, registrationId, date' },
    shape: ROW_SHAPES.withholdingClaims,
    called: ({ id }) => `claim ${id}`,
    references: [
      { ...REGISTRATION, ids: ({ registrationId }) => [registrationId] },
      { ...ENTRY, ids: ({ entryId }) => [entryId] },
      {
        table: 'withheld',
        at: 'covers',
        what: 'what it takes',
        ids: ({ covers }) => covers.map(({ withheldId }) => withheldId),
      },
    ],
  }),
  journal: appended<JournalEntry>({
    key: 'id',
    indexes: { 1: 'id, [date+id], sourceId', 5: 'id, [date+id], sourceId, [kind+date]' },
    shape: ROW_SHAPES.journal,
  }),
  journalLines: appended<JournalLine>({
    key: 'id',
    indexes: { 1: 'id, entryId, [account+date+id], [account+taxPeriodId+date], taxPeriodId' },
    shape: ROW_SHAPES.journalLines,
    called: ({ id }) => `journal line ${id}`,
    references: [
      { ...ENTRY, at: '', ids: ({ entryId }) => [entryId] },
      { table: 'accounts', at: 'account', what: 'an account of the chart', ids: ({ account }) => [account] },
    ],
  }),
  taxEntries: appended<TaxEntry>({
    key: 'id',
    indexes: {
      1: 'id, [periodId+code+percent+documentNumber], documentId',
      2: 'id, [periodId+code+percent+jurisdictionId+taxId+kind+documentNumber], documentId, [taxId+taxPoint]',
    },
    shape: ROW_SHAPES.taxEntries,
    called: ({ id }) => `tax entry ${id}`,
    references: [
      { table: 'documents', at: '', what: 'its document', ids: ({ documentId }) => [documentId] },
      { ...REGISTRATION, ids: ({ registrationId }) => [registrationId] },
    ],
  }),
  taxPeriods: table<TaxPeriod>({
    key: 'id',
    indexes: { 1: 'id, [registrationId+start]' },
    shape: ROW_SHAPES.taxPeriods,
    called: ({ id }) => `tax period ${id}`,
    references: [
      { table: 'registrations', at: '', what: 'its registration', ids: ({ registrationId }) => [registrationId] },
      {
        table: 'journal',
        at: 'filed',
        what: 'the entry of its filing',
        ids: ({ filed }) => (filed === null ? [] : [filed.entryId]),
      },
    ],
  }),
  yearClosings: table<YearClosing>({
    key: 'id',
    indexes: { 10: 'id' },
    shape: ROW_SHAPES.yearClosings,
    called: ({ id }) => `closing of the year to ${id}`,
    references: [{ table: 'journal', at: 'entry', what: 'the entry of its closing', ids: ({ entryId }) => [entryId] }],
  }),
  journalTemplates: removable<JournalTemplate>({
    key: 'id',
    indexes: { 11: 'id, nextDue' },
    shape: ROW_SHAPES.journalTemplates,
    called: ({ name }) => `journal template ${name}`,
    references: [
      {
        table: 'accounts',
        at: 'account',
        what: 'an account of the chart',
        ids: ({ sides }) => sides.map(({ account }) => account),
      },
    ],
  }),
  returnBoxes: table<ReturnBoxes>({
    key: 'id',
    indexes: { 10: 'id' },
    shape: ROW_SHAPES.returnBoxes,
    called: ({ id }) => `what was typed into the return ${id}`,
    references: [
      { table: 'registrations', at: '', what: 'its registration', ids: ({ registrationId }) => [registrationId] },
    ],
  }),
  reopenedFilings: appended<ReopenedFiling>({
    key: 'id',
    indexes: { 8: 'id, periodId' },
    shape: ROW_SHAPES.reopenedFilings,
    called: ({ periodId }) => `reopened return ${periodId}`,
    references: [
      { ...REGISTRATION, ids: ({ registrationId }) => [registrationId] },
      { table: 'taxPeriods', at: 'period', what: 'its tax period', ids: ({ periodId }) => [periodId] },
      { ...ENTRY, ids: ({ entryId, reopened }) => [entryId, reopened.entryId] },
    ],
  }),
  taxPayments: table<TaxPayment>({
    key: 'id',
    indexes: { 8: 'id, registrationId, periodId, [date+id]' },
    shape: ROW_SHAPES.taxPayments,
    called: ({ id }) => `payment ${id}`,
    references: [
      { ...REGISTRATION, ids: ({ registrationId }) => [registrationId] },
      { table: 'taxPeriods', at: 'period', what: 'the return it pays', ids: ({ periodId }) => [periodId] },
      { ...ENTRY, ids: ({ entryId, undone }) => [entryId, ...(undone === null ? [] : [undone.entryId])] },
    ],
  }),
  revaluations: appended<Revaluation>({
    key: 'id',
    indexes: { 8: 'id, date' },
    shape: ROW_SHAPES.revaluations,
    called: ({ date }) => `revaluation ${date}`,
    references: [{ ...ENTRY, ids: ({ entryId, mirrorId }) => [entryId, mirrorId].filter(Boolean) }],
  }),
  deferrals: table<DeferralPlan>({
    key: 'id',
    indexes: { 8: 'id, documentId, customerId, until' },
    shape: ROW_SHAPES.deferrals,
    called: ({ documentNumber }) => `deferred revenue of ${documentNumber}`,
    references: [
      { ...CUSTOMER, ids: ({ customerId }) => [customerId] },
      { table: 'documents', at: 'document', what: 'its invoice', ids: ({ documentId }) => [documentId] },
      { ...ENTRY, ids: ({ entries }) => entries.map(({ entryId }) => entryId) },
    ],
    customers: { found: { index: 'customerId' }, moved: toCustomer },
  }),
  transmissions: table<Transmission>({
    key: 'id',
    indexes: { 4: 'id, documentId, dueAt, [phase+since]' },
    shape: ROW_SHAPES.transmissions,
    customers: { found: { index: 'documentId', through: 'documents' }, moved: toCustomer },
    called: ({ id }) => `transmission ${id}`,
    references: [{ table: 'documents', at: '', what: 'its document', ids: ({ documentId }) => [documentId] }],
  }),
  reminders: appended<Reminder>({
    key: 'id',
    indexes: { 9: 'id, customerId, on, *documentIds' },
    shape: ROW_SHAPES.reminders,
    called: ({ customerName, on }) => `reminder to ${customerName} of ${on}`,
    references: [
      { ...CUSTOMER, ids: ({ customerId }) => [customerId] },
      { table: 'documents', at: 'documents', what: 'documents of the book', ids: ({ documentIds }) => documentIds },
    ],
    customers: { found: { index: 'customerId' }, moved: toCustomer },
  }),
  reminderHolds: removable<ReminderHold>({
    key: 'documentId',
    indexes: { 9: 'documentId, until' },
    shape: ROW_SHAPES.reminderHolds,
    called: ({ kind }) => kind,
    references: [{ table: 'documents', at: '', what: 'its document', ids: ({ documentId }) => [documentId] }],
  }),
  customerGroups: removable<CustomerGroup>({
    key: 'id',
    indexes: { 9: 'id, name' },
    shape: ROW_SHAPES.customerGroups,
    records: each(customerGroupSchema),
  }),
  runs: removable<Run>({
    key: 'id',
    indexes: { 9: 'id, date' },
    shape: ROW_SHAPES.runs,
    called: ({ name }) => `run ${name}`,
    records: each(runSchema),
    references: [{ table: 'drafts', at: 'content', what: 'what it says', ids: ({ id }) => [id] }],
  }),
  runRows: removable<RunRow>({
    key: 'id',
    indexes: { 9: 'id, [runId+state], customerId' },
    shape: ROW_SHAPES.runRows,
    called: ({ customerName }) => `${customerName} in a run`,
    references: [
      { table: 'runs', at: 'run', what: 'its run', ids: ({ runId }) => [runId] },
      { ...CUSTOMER, ids: ({ customerId }) => [customerId] },
    ],
    customers: { found: { index: 'customerId' }, moved: toCustomer },
  }),
  recurring: removable<Recurring>({
    key: 'id',
    indexes: { 9: 'id, nextDue' },
    shape: ROW_SHAPES.recurring,
    called: ({ name }) => `recurring document ${name}`,
    records: each(recurringSchema),
    references: [{ table: 'drafts', at: 'content', what: 'what it says', ids: ({ id }) => [id] }],
  }),
  recurringMade: table<RecurringMade>({
    key: 'id',
    indexes: { 9: 'id, [recurringId+date], isGoing, state' },
    shape: ROW_SHAPES.recurringMade,
    called: ({ date }) => `recurring document of ${date}`,
  }),
  mails: table<Mail>({
    key: 'id',
    indexes: { 9: 'id, *documentIds, [customerId+queuedAt], dueAt, [phase+since]' },
    shape: ROW_SHAPES.mails,
    called: ({ about }) => `message about ${about}`,
    references: [
      { table: 'documents', at: 'documents', what: 'documents of the book', ids: ({ documentIds }) => documentIds },
      { ...CUSTOMER, ids: ({ customerId }) => (customerId === '' ? [] : [customerId]) },
      {
        table: 'mailFiles',
        at: 'files',
        what: 'its files',
        ids: ({ files }) => files.map(({ sha256 }) => sha256),
      },
    ],
    customers: { found: { index: '[customerId+queuedAt]' }, moved: toCustomer },
  }),
  mailFiles: appended<MailFileData>({ key: 'sha256', indexes: { 9: 'sha256' }, shape: ROW_SHAPES.mailFiles }),
  messageTemplates: removable<MessageTemplate>({
    key: 'id',
    indexes: { 9: 'id' },
    shape: ROW_SHAPES.messageTemplates,
    records: each(messageTemplateSchema),
  }),
  audit: appended<AuditEvent>({
    key: 'id',
    indexes: { 1: 'id, at', 3: 'id, at, *about' },
    shape: ROW_SHAPES.audit,
  }),
} as const;

type Tables = typeof TABLES;

export type BookTable = keyof Tables;

/** The row of each table of the book. */
export type BookRows = { [T in BookTable]: Tables[T] extends TableDescriptor<infer Row> ? Row : never };

/** Tables of truth: what decisions write. The audit trail is written beside them. */
export type TruthTable = Exclude<BookTable, 'audit'>;

type TablesThat<Lasts> = { [T in BookTable]: Tables[T] extends { readonly lasts: Lasts } ? T : never }[BookTable];

/** Tables whose rows are added and never change: what was posted and what was reported. */
export type AppendedTable = TablesThat<'appended'>;

/** Tables that rows may be taken away from. */
export type RemovableTable = TablesThat<'removable'>;

/** Tables that go out to CSV and come in from it. */
export type CsvTable = {
  [T in BookTable]: Tables[T] extends { readonly columns: object } ? T : never;
}[BookTable];

/** All rows of a book, by table. */
export type BookContent = { readonly [T in BookTable]: readonly BookRows[T][] };

/** All tables of a book, in the order an archive lists them. */
export const BOOK_TABLES = Object.keys(TABLES) as readonly BookTable[];

/** What is known of a table whose name is only known when the program runs. */
export function descriptorOf(name: BookTable): TableDescriptor<never> {
  return TABLES[name] as unknown as TableDescriptor<never>;
}

export const CSV_TABLES = BOOK_TABLES.filter((name): name is CsvTable => 'columns' in TABLES[name]);

/** How the records of a table stand in a CSV file. */
export function columnsOf<T extends CsvTable>(name: T): Columns<BookRows[T]> {
  return TABLES[name].columns as unknown as Columns<BookRows[T]>;
}

/** The version of the book that a table came with. */
export function sinceVersion(name: BookTable): number {
  return Math.min(...Object.keys(TABLES[name].indexes).map(Number));
}

/**
 * Balances and words that are kept up beside the truth and can be rebuilt from it, with their indexes by version;
 * null where a version took a table away.
 */
export const DERIVED_TABLES: Readonly<Record<string, Readonly<Record<number, string | null>>>> = {
  accountMonths: { 1: '[account+month], month' },
  // A primary key can't change in place: the balances went to a table of another name.
  taxBalances: { 1: '[periodId+code+percent], periodId', 2: null },
  taxRows: { 2: '[periodId+code+percent+jurisdictionId+taxId+kind], periodId' },
  customerBalances: { 1: 'customerId' },
  vocabulary: { 3: 'word, *endings' },
};

/** What a version of the book stated anew: tables with their indexes, as the database takes them. */
export function tablesOfVersion(version: number): Readonly<Record<string, string | null>> {
  const stated = [
    ...BOOK_TABLES.map((name) => [name, descriptorOf(name).indexes[version]] as const),
    ...Object.entries(DERIVED_TABLES).map(([name, indexes]) => [name, indexes[version]] as const),
  ];
  return Object.fromEntries(stated.flatMap(([name, indexes]) => (indexes === undefined ? [] : [[name, indexes]])));
}
