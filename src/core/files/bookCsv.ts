import { signed } from '@/core/documents/content';
import type { IssuedDocument } from '@/core/documents/issued';
import type { Currency } from '@/core/kernel/currency';
import { type Minor, minor, NOTHING, negated, writeMoney } from '@/core/kernel/money';
import type { Account } from '@/core/ledger/account';
import type { PostedEntry } from '@/core/ledger/entry';
import type { TaxBalance, TaxPeriod } from '@/core/returns/return';
import type { Allocation } from '@/core/settlement/allocation';
import type { Receipt } from '@/core/settlement/receipt';
import type { Registration } from '@/core/tax/registration';

/* The book as CSV for other programs: plain decimals, ISO dates, one table for each kind. Credit notes count down. */

/** What of the book goes out as CSV. */
export const BOOK_CSV = ['documents', 'receipts', 'entries', 'returns', 'accounts'] as const;
export type BookCsv = (typeof BOOK_CSV)[number];

/** Heads of each, in the order of their cells. */
export const BOOK_CSV_HEADS: Readonly<Record<BookCsv, readonly string[]>> = {
  documents: [
    ...['kind', 'number', 'date', 'due', 'tax point', 'state', 'customer', 'tax number', 'reference', 'order number'],
    ...['currency', 'line', 'description', 'quantity', 'unit', 'price', 'net', 'tax code', 'account'],
    ...['document net', 'document tax', 'document total'],
  ],
  receipts: [
    ...['number', 'date', 'value date', 'customer', 'reference', 'currency', 'amount', 'on account'],
    ...['settles', 'settled on', 'settled', 'taken back on'],
  ],
  entries: ['entry', 'date', 'kind', 'text', 'account', 'debit', 'credit', 'line text'],
  returns: [
    ...['registration', 'from', 'until', 'filed', 'tax code', 'rate', 'jurisdiction', 'kind'],
    ...['taxable amount', 'tax'],
  ],
  accounts: ['code', 'name', 'type', 'used for', 'ended'],
};

/** Each line of a document, beside what the document says. */
export function documentLines(document: IssuedDocument): readonly (readonly string[])[] {
  const { kind, number, issueDate, dueDate, state, customerName, content, figures } = document;
  const { currency, buyer } = content;
  const money = (amount: Minor) => writeMoney(signed(content, amount), currency);
  const { net, taxAmount, payable } = figures.totals;
  const head = [
    ...[kind, number, issueDate, dueDate, content.taxPoint, state, customerName, buyer.taxNumber],
    ...[content.buyerReference, content.orderNumber, currency],
  ];
  const sums = [money(net), money(taxAmount), money(payable)];
  return content.lines.map((line, i) => [
    ...head,
    ...[String(i + 1), line.description, line.quantity, line.unit, line.unitPrice],
    ...[money(figures.lines[i]?.net ?? NOTHING), line.tax, line.account],
    ...sums,
  ]);
}

/** A receipt for each thing that it settles, and once where it settles nothing. */
export function receiptRows(receipt: Receipt, allocations: readonly Allocation[]): readonly (readonly string[])[] {
  const { number, date, valueDate, customerName, reference, currency, amount, open } = receipt;
  const money = (value: Minor) => writeMoney(value, currency);
  const head = [number, date, valueDate, customerName, reference, currency, money(amount), money(open)];
  if (allocations.length === 0) return [[...head, '', '', '', '']];
  return allocations.map((one) => [...head, one.debtNumber, one.date, money(one.amount), one.undone?.on ?? '']);
}

/** Each line of an entry. */
export function entryRows({ entry, lines }: PostedEntry, home: Currency): readonly (readonly string[])[] {
  const side = (amount: Minor) => (amount > 0n ? writeMoney(amount, home) : '');
  return lines.map(({ account, amount, text }) => [
    ...[entry.id, entry.date, entry.kind, entry.text, account, side(amount), side(negated(amount)), text],
  ]);
}

/** Each row of a return, as it was filed or as it stands. */
export function returnRows(
  { start, end, filed }: TaxPeriod,
  rows: readonly TaxBalance[],
  { name }: Pick<Registration, 'name'>,
  home: Currency,
): readonly (readonly string[])[] {
  return rows.map(({ codeName, percent, jurisdictionName, kind, base, tax }) => [
    ...[name, start, end, filed?.at.slice(0, 10) ?? '', codeName, percent, jurisdictionName, kind],
    ...[writeMoney(minor(base), home), writeMoney(minor(tax), home)],
  ]);
}

/** An account of the chart. */
export const accountRow = ({ code, name, type, role, ended = false }: Account): readonly string[] => [
  ...[code, name, type, role, ended ? 'yes' : ''],
];
