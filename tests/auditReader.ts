import { XMLParser, XMLValidator } from 'fast-xml-parser';
import { AUDIT_NAMESPACE } from '@/core/reports/auditFile';

/* A strict reader of audit files: every element in its place and order, as often as it may stand, and sums that are right. */

interface XmlNode {
  readonly name: string;
  readonly text: string;
  readonly children: readonly XmlNode[];
  readonly attributes: Readonly<Record<string, string>>;
}

const childOf = (node: XmlNode, name: string): XmlNode | undefined => node.children.find((one) => one.name === name);

type Parsed = Readonly<Record<string, unknown>>;

function nodeOf(parsed: Parsed): XmlNode {
  const name = Object.keys(parsed).find((key) => key !== ':@') ?? '';
  const inner = parsed[name] as readonly Parsed[];
  return {
    name,
    text: inner.map((one) => String(one['#text'] ?? '')).join(''),
    children: inner.filter((one) => !('#text' in one)).map(nodeOf),
    attributes: (parsed[':@'] ?? {}) as Record<string, string>,
  };
}

/** @throws Error where it is not well-formed */
function parsed(text: string): XmlNode {
  const valid = XMLValidator.validate(text);
  if (valid !== true) throw new Error(valid.err.msg);
  const options = { preserveOrder: true, ignoreAttributes: false, attributeNamePrefix: '', parseTagValue: false };
  const roots = new XMLParser(options).parse(text) as readonly Parsed[];
  const root = roots.find((one) => !('?xml' in one));
  if (root === undefined) throw new Error('no root');
  return nodeOf(root);
}

/** `Name` once, `Name?` at most once, `Name*` any number, `Name+` at least once; `A|B` one of them. */
const ELEMENTS: Readonly<Record<string, string>> = {
  AuditFile: 'Header MasterFiles GeneralLedgerEntries SourceDocuments',
  Header:
    'AuditFileVersion AuditFileCountry AuditFileDateCreated SoftwareCompanyName SoftwareID SoftwareVersion Company DefaultCurrencyCode SelectionCriteria TaxAccountingBasis',
  Company: 'RegistrationNumber? Name Address TaxRegistration*',
  Address: 'StreetName? City? PostalCode? Region? Country?',
  TaxRegistration: 'TaxRegistrationNumber TaxAuthority?',
  SelectionCriteria: 'SelectionStartDate SelectionEndDate',
  MasterFiles: 'GeneralLedgerAccounts Customers TaxTable',
  GeneralLedgerAccounts: 'Account+',
  Account:
    'AccountID AccountDescription StandardAccountID AccountType OpeningDebitBalance|OpeningCreditBalance ClosingDebitBalance|ClosingCreditBalance',
  Customers: 'Customer*',
  Customer:
    'RegistrationNumber? Name Address CustomerID AccountID OpeningDebitBalance|OpeningCreditBalance ClosingDebitBalance|ClosingCreditBalance',
  TaxTable: 'TaxTableEntry*',
  TaxTableEntry: 'TaxType Description TaxCodeDetails',
  TaxCodeDetails: 'TaxCode Description TaxPercentage Country',
  GeneralLedgerEntries: 'NumberOfEntries TotalDebit TotalCredit Journal',
  Journal: 'JournalID Description Type Transaction*',
  Transaction:
    'TransactionID Period PeriodYear TransactionDate SourceID? Description SystemEntryDate GLPostingDate Line+',
  SourceDocuments: 'SalesInvoices Payments',
  SalesInvoices: 'NumberOfEntries TotalDebit TotalCredit Invoice*',
  Invoice: 'InvoiceNo CustomerInfo Period InvoiceDate InvoiceType GLPostingDate TransactionID Line+ DocumentTotals',
  CustomerInfo: 'CustomerID',
  Payments: 'NumberOfEntries TotalDebit TotalCredit Payment*',
  Payment: 'PaymentRefNo TransactionID Period TransactionDate PaymentMethod Description Line+ DocumentTotals',
  DebitAmount: 'Amount',
  CreditAmount: 'Amount',
  InvoiceLineAmount: 'Amount',
  PaymentLineAmount: 'Amount',
  TaxAmount: 'Amount',
};

/** Elements that mean something else below others. */
const BELOW: Readonly<Record<string, string>> = {
  'Transaction/Line': 'RecordID AccountID Description DebitAmount|CreditAmount TaxInformation?',
  'Invoice/Line':
    'LineNumber ProductDescription Quantity? UnitOfMeasure? UnitPrice? TaxPointDate Description InvoiceLineAmount DebitCreditIndicator TaxInformation',
  'Payment/Line': 'LineNumber SourceDocumentID AccountID CustomerID DebitCreditIndicator PaymentLineAmount',
  'Transaction/Line/TaxInformation': 'TaxType TaxCode',
  'Invoice/Line/TaxInformation': 'TaxType TaxCode TaxPercentage TaxBase',
  'Invoice/DocumentTotals': 'TaxInformationTotals* NetTotal GrossTotal',
  'Payment/DocumentTotals': 'GrossTotal',
  TaxInformationTotals: 'TaxType TaxCode TaxBase TaxAmount',
};

function grammarOf(path: readonly string[]): string | undefined {
  for (let from = Math.max(0, path.length - 3); from < path.length; from++) {
    const below = BELOW[path.slice(from).join('/')];
    if (below !== undefined) return below;
  }
  return ELEMENTS[path.at(-1) ?? ''];
}

/** What does not stand where it should, by path. */
function misplaced(node: XmlNode, above: readonly string[]): readonly string[] {
  const path = [...above, node.name];
  const grammar = grammarOf(path);
  if (grammar === undefined) return node.children.length > 0 ? [`${path.join('/')} has children`] : [];
  const rest = node.children.map(({ name }) => name);
  const faults: string[] = [];
  for (const part of grammar.split(' ')) {
    const [, names = '', often = ''] = /^([^?*+]+)([?*+]?)$/.exec(part) ?? [];
    const fits = new Set(names.split('|'));
    let count = 0;
    while (rest[0] !== undefined && fits.has(rest[0]) && (count === 0 || often === '*' || often === '+')) {
      rest.shift();
      count++;
    }
    if (count === 0 && (often === '' || often === '+')) faults.push(`${path.join('/')} lacks ${names}`);
  }
  if (rest.length > 0) faults.push(`${path.join('/')} has ${rest[0]} out of place`);
  return [...faults, ...node.children.flatMap((child) => misplaced(child, path))];
}

const cents = (text: string): bigint => {
  const [whole = '0', part = ''] = text.replace('-', '').split('.');
  const amount = BigInt(whole) * 100n + BigInt(part.padEnd(2, '0').slice(0, 2));
  return text.startsWith('-') ? -amount : amount;
};

export interface ReadAudit {
  readonly root: XmlNode;
  readonly faults: readonly string[];
  /** Debits less credits of each account, by code: at the beginning, between, and at the end. */
  readonly accounts: ReadonlyMap<
    string,
    { readonly opening: bigint; readonly moved: bigint; readonly closing: bigint }
  >;
  readonly totals: Readonly<
    Record<'ledger' | 'sales' | 'payments', readonly [entries: number, debit: bigint, credit: bigint]>
  >;
}

/** Every element of a name below another, in their order. */
export const all = (node: XmlNode, name: string): readonly XmlNode[] =>
  node.children.flatMap((child) => [...(child.name === name ? [child] : []), ...all(child, name)]);

const textOf = (node: XmlNode | undefined, name: string): string => (node && childOf(node, name)?.text) ?? '';

/** Reads an audit file and everything that is wrong with it. @throws Error where it is not well-formed */
export function readAudit(text: string): ReadAudit {
  const root = parsed(text);
  const faults = [...misplaced(root, [])];
  if (root.attributes.xmlns !== AUDIT_NAMESPACE) faults.push('the namespace');
  const moved = new Map<string, bigint>();
  for (const line of all(root, 'Transaction').flatMap((one) => all(one, 'Line'))) {
    const [debit, credit] = [childOf(line, 'DebitAmount'), childOf(line, 'CreditAmount')];
    const amount = cents(textOf(debit, 'Amount')) - cents(textOf(credit, 'Amount'));
    const account = textOf(line, 'AccountID');
    moved.set(account, (moved.get(account) ?? 0n) + amount);
  }
  const side = (node: XmlNode, name: string) =>
    cents(textOf(node, `${name}DebitBalance`)) - cents(textOf(node, `${name}CreditBalance`));
  const accounts = new Map(
    all(root, 'Account').map((node) => {
      const code = textOf(node, 'AccountID');
      const stands = { opening: side(node, 'Opening'), moved: moved.get(code) ?? 0n, closing: side(node, 'Closing') };
      if (stands.opening + stands.moved !== stands.closing) faults.push(`account ${code}`);
      return [code, stands] as const;
    }),
  );
  for (const code of moved.keys()) if (!accounts.has(code)) faults.push(`account ${code} is not listed`);
  const customers = new Set(all(root, 'Customer').map((node) => textOf(node, 'CustomerID')));
  for (const info of all(root, 'CustomerInfo'))
    if (!customers.has(textOf(info, 'CustomerID'))) faults.push('a customer that is not listed');
  const totalsOf = (name: string, of: string) => {
    const [part] = all(root, name);
    if (part === undefined) throw new Error(`no ${name}`);
    const entries = Number(textOf(part, 'NumberOfEntries'));
    if (entries !== all(part, of).length) faults.push(`${name}: number of entries`);
    return [entries, cents(textOf(part, 'TotalDebit')), cents(textOf(part, 'TotalCredit'))] as const;
  };
  return {
    root,
    faults,
    accounts,
    totals: {
      ledger: totalsOf('GeneralLedgerEntries', 'Transaction'),
      sales: totalsOf('SalesInvoices', 'Invoice'),
      payments: totalsOf('Payments', 'Payment'),
    },
  };
}
