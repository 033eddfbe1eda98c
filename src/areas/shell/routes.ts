/** A kind of draft that an address can ask for. */
type NewKind = 'invoice' | 'quote' | 'cash-sale';

/** Lists that are part of the day's work. */
const IN_SALES = new Set(['customers', 'items', 'prices']);

/** A list of records: `customers`, or a part of Setup. */
const section = (name: string): string => `${IN_SALES.has(name) ? '/sales' : '/setup'}/${name}`;

/** Every address of the app. Screens name a place by what it is; where it lies is said here alone. */
export const routes = {
  home: '/',
  today: '/today',
  sales: '/sales',
  takings: '/sales/takings',
  eInvoice: '/sales/einvoice',
  sentEInvoices: '/sales/sent',
  outbox: '/sales/outbox',
  runs: '/sales/runs',
  run: (id: string): string => `/sales/runs/${encodeURIComponent(id)}`,
  recurringList: '/sales/recurring',
  recurring: (id: string): string => `/sales/recurring/${encodeURIComponent(id)}`,
  receipts: '/receipts',
  newReceipt: '/receipts/new',
  receiptList: '/receipts/list',
  /** What all customers owe. */
  customers: '/receipts/customers',
  tax: '/tax',
  closing: '/tax?view=closing',
  ledger: '/ledger',
  writeJournal: '/ledger/write',
  /** A new journal that begins as one that was posted. */
  journalLike: (entryId: string) => `/ledger/write?like=${encodeURIComponent(entryId)}`,
  years: '/ledger/years',
  openingBalances: '/ledger/opening',
  chart: '/ledger/chart',
  auditFile: '/ledger/audit-file',
  revaluation: '/ledger/revaluation',
  report: (name: string): string => `/ledger/reports/${name}`,
  deferred: '/ledger/deferred',
  prove: '/ledger/prove',
  seals: '/ledger/seals',
  history: '/ledger/history',
  setup: '/setup',
  rescue: '/rescue',
  sample: '/open/demo',
  section,
  /** A record of such a list; `new` for one that is yet to be made. */
  record: (name: string, id: string): string => `${section(name)}/${encodeURIComponent(id)}`,
  document: (id: string): string => `/sales/doc/${id}`,
  draft: (id: string): string => `/sales/draft/${id}`,
  newDraft: (id: string, kind: NewKind): string => `/sales/draft/${id}?new=${kind}`,
  receipt: (id: string): string => `/receipts/${id}`,
  /** The account of a customer. */
  customer: (id: string): string => `/receipts/customers/${encodeURIComponent(id)}`,
  receiptFor: (documentId: string): string => `/receipts/new?document=${documentId}`,
  receiptFrom: (customerId: string): string => `/receipts/new?customer=${encodeURIComponent(customerId)}`,
  withholding: '/receipts/withholding',
  reminders: '/receipts/reminders',

  bank: '/receipts/bank',
  reconcile: (id: string): string => `/receipts/bank/reconcile?account=${encodeURIComponent(id)}`,
  bankLine: (id: string): string => `/receipts/bank?line=${encodeURIComponent(id)}`,
  account: (code: string): string => `/ledger/account/${code}`,
  entry: (id: string): string => `/ledger?entry=${id}`,
  historyOf: (id: string): string => `/ledger/history?about=${encodeURIComponent(id)}`,
} as const;
