import { bookFigures } from '@/core/documents/bookFigures';
import type { IssuedDocument } from '@/core/documents/issued';
import { KINDS } from '@/core/documents/kinds';
import { element, fragment, type OutNode } from '@/core/einvoice/xml/writeXml';
import type { Currency } from '@/core/kernel/currency';
import { dayOf, type IsoDate } from '@/core/kernel/date';
import { type Minor, NOTHING, negated, plus, total, writeMoney } from '@/core/kernel/money';
import type { Account } from '@/core/ledger/account';
import type { JournalEntry, JournalLine } from '@/core/ledger/entry';
import type { Address } from '@/core/parties/address';
import type { Business } from '@/core/parties/business';
import type { Customer } from '@/core/parties/customer';
import type { Receipt } from '@/core/settlement/receipt';
import type { Registration } from '@/core/tax/registration';
import type { TaxCode } from '@/core/tax/taxCode';
import type { ReportSpan } from './span';

/*
 * The Standard Audit File for Tax, version 2.0 of the OECD: header, accounts, customers, tax table, entries of the general
 * ledger, and source documents. It is written piece by piece, in the order of its schema, so that a book of any size goes
 * through little memory.
 */

export const AUDIT_NAMESPACE = 'urn:OECD:StandardAuditFile-Taxation/2.00';

const text = (name: string, value: string): OutNode => element(name, value);
const group = (name: string, ...children: readonly (OutNode | null)[]): OutNode =>
  element(
    name,
    children.flatMap((child) => child ?? []),
  );
const some = (name: string, value: string | undefined): OutNode | null =>
  value === undefined || value === '' ? null : text(name, value);

/** Begins a file; `</AuditFile>` ends it. */
export const AUDIT_BEGIN = `<?xml version="1.0" encoding="UTF-8"?>\n<AuditFile xmlns="${AUDIT_NAMESPACE}">\n`;

export interface AuditHeader extends ReportSpan {
  readonly business: Business;
  readonly registrations: readonly Registration[];
  /** ISO date on which it is written. */
  readonly writtenOn: IsoDate;
}

function addressNode(name: string, { street, city, region, postalCode, country }: Address): OutNode {
  return group(
    name,
    some('StreetName', street.replaceAll('\n', ', ')),
    some('City', city),
    some('PostalCode', postalCode),
    some('Region', region),
    some('Country', country),
  );
}

export function headerXml({ business, registrations, writtenOn, from, until }: AuditHeader): string {
  const { name, legalId, address, homeCurrency } = business;
  return fragment(
    group(
      'Header',
      text('AuditFileVersion', '2.00'),
      text('AuditFileCountry', address.country),
      text('AuditFileDateCreated', writtenOn),
      text('SoftwareCompanyName', 'Able Ledger'),
      text('SoftwareID', 'Able Ledger'),
      text('SoftwareVersion', '1'),
      group(
        'Company',
        some('RegistrationNumber', legalId),
        text('Name', name),
        addressNode('Address', address),
        ...registrations.map(({ number, authority, country }) =>
          group('TaxRegistration', text('TaxRegistrationNumber', number || country), some('TaxAuthority', authority)),
        ),
      ),
      text('DefaultCurrencyCode', homeCurrency),
      group('SelectionCriteria', text('SelectionStartDate', from), text('SelectionEndDate', until)),
      text('TaxAccountingBasis', 'Invoice accounting'),
    ),
  );
}

/** What stood at the beginning and at the end, debits above zero. */
export interface OpenedClosed {
  readonly opening: Minor;
  readonly closing: Minor;
}

const money = (amount: Minor, currency: Currency): string =>
  writeMoney(amount < 0n ? negated(amount) : amount, currency);

function balanceNodes({ opening, closing }: OpenedClosed, currency: Currency): readonly OutNode[] {
  const side = (amount: Minor) => (amount < 0n ? 'Credit' : 'Debit');
  return [
    text(`Opening${side(opening)}Balance`, money(opening, currency)),
    text(`Closing${side(closing)}Balance`, money(closing, currency)),
  ];
}

const ACCOUNT_TYPES = { asset: 'Asset', liability: 'Liability', income: 'Sale', expense: 'Expense', equity: 'Equity' };

export function accountXml({ code, name, type }: Account, stands: OpenedClosed, currency: Currency): string {
  return fragment(
    group(
      'Account',
      text('AccountID', code),
      text('AccountDescription', name),
      text('StandardAccountID', code),
      text('AccountType', ACCOUNT_TYPES[type]),
      ...balanceNodes(stands, currency),
    ),
  );
}

export function customerXml(
  { id, name, address, taxNumbers }: Customer,
  receivables: string,
  stands: OpenedClosed,
  currency: Currency,
): string {
  return fragment(
    group(
      'Customer',
      some('RegistrationNumber', taxNumbers[0]?.number),
      text('Name', name),
      addressNode('Address', address),
      text('CustomerID', id),
      text('AccountID', receivables),
      ...balanceNodes(stands, currency),
    ),
  );
}

export function taxCodeXml({ id, name, category }: TaxCode, percent: string, country: string): string {
  return fragment(
    group(
      'TaxTableEntry',
      text('TaxType', 'VAT'),
      text('Description', name),
      group(
        'TaxCodeDetails',
        text('TaxCode', id),
        text('Description', `${name} (${category})`),
        text('TaxPercentage', percent),
        text('Country', country),
      ),
    ),
  );
}

/** How many of them there are, and what their debits and credits come to. */
export interface AuditTotals {
  readonly entries: number;
  readonly debit: Minor;
  readonly credit: Minor;
}

export const NO_TOTALS: AuditTotals = { entries: 0, debit: NOTHING, credit: NOTHING };

/** Totals with one more, of so much on either side. */
export function counted({ entries, debit, credit }: AuditTotals, amounts: readonly Minor[]): AuditTotals {
  return {
    entries: entries + 1,
    debit: plus(debit, total(amounts.filter((amount) => amount > 0n))),
    credit: plus(credit, negated(total(amounts.filter((amount) => amount < 0n)))),
  };
}

export function totalsXml({ entries, debit, credit }: AuditTotals, currency: Currency): string {
  return [
    fragment(text('NumberOfEntries', String(entries))),
    fragment(text('TotalDebit', writeMoney(debit, currency))),
    fragment(text('TotalCredit', writeMoney(credit, currency))),
  ].join('\n');
}

function sideNode(amount: Minor, currency: Currency): OutNode {
  return group(amount < 0n ? 'CreditAmount' : 'DebitAmount', text('Amount', money(amount, currency)));
}

export function transactionXml(entry: JournalEntry, lines: readonly JournalLine[], currency: Currency): string {
  return fragment(
    group(
      'Transaction',
      text('TransactionID', entry.id),
      text('Period', entry.date.slice(5, 7)),
      text('PeriodYear', entry.date.slice(0, 4)),
      text('TransactionDate', entry.date),
      some('SourceID', entry.sourceId),
      text('Description', entry.text || entry.kind),
      text('SystemEntryDate', dayOf(entry.at)),
      text('GLPostingDate', entry.date),
      ...lines.map((line) =>
        group(
          'Line',
          text('RecordID', line.id),
          text('AccountID', line.account),
          text('Description', line.text || entry.text || entry.kind),
          sideNode(line.amount, currency),
          line.taxCode === '' ? null : group('TaxInformation', text('TaxType', 'VAT'), text('TaxCode', line.taxCode)),
        ),
      ),
    ),
  );
}

/** Codes of documents by UNTDID 1001. */
const DOCUMENT_TYPES: Readonly<Record<string, string>> = { 'credit-note': '381', invoice: '380' };

/** What a document counts for in home currency, signed: debits of receivables above zero. */
export function invoiceAmount(document: IssuedDocument): Minor {
  const { gross } = bookFigures(document.content, document.figures);
  return KINDS[document.kind].sign < 0n ? negated(gross) : gross;
}

/** A document with its lines; amounts in home currency, a credit note on the other side. */
export function invoiceXml(document: IssuedDocument, currency: Currency): string {
  const { content, figures, number, kind, customerId, issueDate, entryId } = document;
  const home = bookFigures(content, figures);
  const credits = KINDS[kind].sign < 0n;
  const side = (net: Minor) => (net < 0n === credits ? 'C' : 'D');
  const line = (at: number, words: string, tax: string, net: Minor, of: readonly (OutNode | null)[]): OutNode => {
    const group_ = home.groups.find((one) => one.tax === tax);
    return group(
      'Line',
      text('LineNumber', String(at + 1)),
      text('ProductDescription', words || number),
      ...of,
      text('TaxPointDate', content.taxPoint),
      text('Description', words || number),
      group('InvoiceLineAmount', text('Amount', money(net, currency))),
      text('DebitCreditIndicator', side(net)),
      group(
        'TaxInformation',
        text('TaxType', 'VAT'),
        text('TaxCode', tax),
        text('TaxPercentage', content.taxes.find(({ code }) => code === tax)?.percent ?? '0'),
        text('TaxBase', writeMoney(group_?.net ?? NOTHING, currency)),
      ),
    );
  };
  const count = content.lines.length;
  return fragment(
    group(
      'Invoice',
      text('InvoiceNo', number),
      group('CustomerInfo', text('CustomerID', customerId || 'none')),
      text('Period', issueDate.slice(5, 7)),
      text('InvoiceDate', issueDate),
      text('InvoiceType', DOCUMENT_TYPES[kind] ?? '380'),
      text('GLPostingDate', issueDate),
      text('TransactionID', entryId),
      ...content.lines.map((one, i) =>
        line(i, one.description, one.tax, home.lineNets[i] ?? NOTHING, [
          text('Quantity', one.quantity),
          some('UnitOfMeasure', one.unit),
          text('UnitPrice', one.unitPrice),
        ]),
      ),
      ...figures.adjustments.map((one, i) =>
        line(count + i, 'On the whole document', one.tax, home.adjustmentNets[i] ?? NOTHING, []),
      ),
      group(
        'DocumentTotals',
        ...home.groups.map(({ tax, net, taxAmount }) =>
          group(
            'TaxInformationTotals',
            text('TaxType', 'VAT'),
            text('TaxCode', tax),
            text('TaxBase', writeMoney(net, currency)),
            group('TaxAmount', text('Amount', writeMoney(taxAmount, currency))),
          ),
        ),
        text('NetTotal', writeMoney(home.net, currency)),
        text('GrossTotal', writeMoney(home.gross, currency)),
      ),
    ),
  );
}

/** A receipt with what was paid how; a customer's money stands on the credit side of receivables. */
export function paymentXml(receipt: Receipt, receivables: string, currency: Currency): string {
  const { number, entryId, date, amountHome, customerId, parts, reference } = receipt;
  return fragment(
    group(
      'Payment',
      text('PaymentRefNo', number),
      text('TransactionID', entryId),
      text('Period', date.slice(5, 7)),
      text('TransactionDate', date),
      text('PaymentMethod', parts[0]?.method ?? 'other'),
      text('Description', reference || number),
      group(
        'Line',
        text('LineNumber', '1'),
        text('SourceDocumentID', number),
        text('AccountID', receivables),
        text('CustomerID', customerId),
        text('DebitCreditIndicator', 'C'),
        group('PaymentLineAmount', text('Amount', money(amountHome, currency))),
      ),
      group('DocumentTotals', text('GrossTotal', money(amountHome, currency))),
    ),
  );
}
