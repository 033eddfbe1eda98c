/* Version 2 to version 3; frozen, see `v1.ts`. */

interface OldAccount {
  readonly code: string;
  readonly role: string;
}

interface OldSeries {
  readonly id: string;
  readonly prefix: string;
  readonly next: Readonly<Record<string, number>>;
}

interface OldDocument {
  readonly id: string;
  readonly kind: string;
  readonly content: { readonly corrects?: { readonly documentId: string } };
  readonly open: bigint;
  readonly issueDate: string;
  readonly creditNote: object | null;
  readonly keys: readonly string[];
}

/** Tables of version 2, as far as they are read here; all others stay as they are. */
export interface BookContentV2 {
  readonly book: readonly { readonly business: { readonly homeCurrency: string } }[];
  readonly accounts: readonly OldAccount[];
  readonly series: readonly OldSeries[];
  readonly customers: readonly { readonly address: { readonly country: string } }[];
  readonly drafts: readonly { readonly id: string; readonly lines: readonly object[] }[];
  readonly documents: readonly OldDocument[];
  readonly receipts: readonly {
    readonly amount: bigint;
    readonly allocations: readonly { readonly documentId: string }[];
  }[];
}

/** Accounts with roles that were new. */
const ACCOUNTS = [
  { code: '3900', name: 'Opening balances', type: 'equity', role: 'opening' },
  { code: '4400', name: 'Freight and packaging charged', type: 'income', role: 'charges' },
  { code: '4900', name: 'Discounts allowed', type: 'income', role: 'discounts' },
  { code: '7910', name: 'Rounding differences', type: 'expense', role: 'rounding' },
  { code: '7920', name: 'Exchange differences', type: 'expense', role: 'exchange' },
] as const;

/** The chart with an account for each role that is new, under its own code or the next free one. */
function withNewRoles(accounts: readonly OldAccount[]): readonly OldAccount[] {
  const codes = new Set(accounts.map((account) => account.code));
  const roles = new Set(accounts.map((account) => account.role));
  const added = ACCOUNTS.filter(({ role }) => !roles.has(role)).map((account) => {
    let code = Number(account.code);
    while (codes.has(String(code))) code++;
    codes.add(String(code));
    return { ...account, code: String(code) };
  });
  return [...accounts, ...added];
}

/** A series that has numbered nothing yet. */
const newSeries = (kind: string, prefix: string) => ({
  id: kind,
  kind,
  registrationId: '',
  prefix,
  digits: 4,
  yearly: true,
  start: 1,
  next: {},
  count: 0,
  lastSeal: '',
  lastDate: '',
});

const SERIES = [
  newSeries('quote', 'QUO'),
  newSeries('invoice', 'INV'),
  newSeries('credit-note', 'CN'),
  newSeries('takings', 'TK'),
  newSeries('opening', 'OB'),
  newSeries('receipt', 'REC'),
];

function upgradeSeries(old: BookContentV2['series']): readonly object[] {
  const upgraded = old.map((series) => {
    const count = Object.values(series.next).reduce((sum, next) => sum + next - 1, 0);
    return { ...newSeries(series.id, series.prefix), ...series, kind: series.id, registrationId: '', count };
  });
  const known = new Set(upgraded.map((series) => series.id));
  return [...upgraded, ...SERIES.filter((series) => !known.has(series.id))];
}

/** What a customer of version 3 held that one of version 2 did not. */
const CUSTOMER = {
  prospect: false,
  parentId: '',
  mergedInto: '',
  kind: 'business',
  addresses: [],
  contacts: [],
  email: '',
  language: 'en',
  taxNumbers: [],
  endpoint: { scheme: '', id: '' },
  terms: '30d',
  taxCode: '',
  priceMode: 'net',
  currency: '',
  styleId: '',
  priceListId: '',
  notLiableIn: [],
  withholding: [],
};

/** What a draft of version 3 held that one of version 2 did not. */
const DRAFT = {
  kind: 'invoice',
  origin: null,
  revision: 0,
  registrationByHand: false,
  customerId: '',
  delivery: null,
  taxPoint: '',
  supplyFrom: '',
  accountingDate: '',
  due: '30d',
  currency: '',
  perHome: '',
  priceMode: 'net',
  contact: '',
  buyerReference: '',
  orderNumber: '',
  subject: '',
  salesperson: '',
  tags: [],
  carrier: '',
  tracking: '',
  note: '',
  conditions: '',
  remarks: '',
  styleId: '',
  paidBy: 'cash',
  adjustments: [],
  overrides: [],
  held: null,
  savedAt: '',
  keys: [],
};

function upgradeDocument({ creditNote, keys: _, ...old }: OldDocument): object {
  return {
    ...old,
    seriesId: old.kind,
    openHome: old.open,
    creditNotes: creditNote === null ? [] : [creditNote],
    familyId: old.content.corrects?.documentId ?? old.id,
    // Whether it went out was not kept; what may have gone out is not cancelled but credited.
    sentOn: old.issueDate,
    cancelled: null,
    quote: null,
    tags: [],
    remarks: '',
    styleId: '',
  };
}

/**
 * A book of version 2 in the shape of version 3: quotes, families, foreign currency, styles and filters. Gives the tables
 * that are written anew.
 */
export function upgradeV2(old: BookContentV2): Readonly<Record<string, readonly object[]>> {
  const home = old.book[0]?.business.homeCurrency;
  if (home === undefined) throw new RangeError('a book without its business');
  return {
    accounts: withNewRoles(old.accounts),
    series: upgradeSeries(old.series),
    customers: old.customers.map((customer) => ({ ...CUSTOMER, ...customer })),
    drafts: old.drafts.map((draft) => ({
      ...DRAFT,
      familyId: draft.id,
      ...draft,
      lines: draft.lines.map((line) => ({ ...line, supplied: '', of: '' })),
    })),
    documents: old.documents.map(upgradeDocument),
    receipts: old.receipts.map((receipt) => ({
      ...receipt,
      currency: home,
      amountHome: receipt.amount,
      settles: receipt.allocations.map(({ documentId }) => documentId),
    })),
    styles: [],
    savedViews: [],
    attachments: [],
  };
}
