import type { XmlNode } from '@/core/einvoice/xml/node';
import { CURRENCIES, type Currency } from '@/core/kernel/currency';
import { type IsoDate, isIsoDate } from '@/core/kernel/date';
import { type Minor, negated, total } from '@/core/kernel/money';
import { accept, type Result } from '@/core/kernel/result';
import { bankText, MOST_LINES, readBankAmount, type Statement, type StatementLine, unreadable } from './statement';

/* ISO 20022 camt.053, BankToCustomerStatement, versions 02 to 13: elements that moved between versions are looked for in both places. */

const NAMESPACE = /^\{urn:iso:std:iso:20022:tech:xsd:camt\.(\d{3})\.001\.\d\d\}/;
const local = (node: XmlNode): string => node.name.replace(/^\{.*\}/, '');

const all = (node: XmlNode | undefined, name: string): readonly XmlNode[] =>
  node?.children.filter((child) => local(child) === name) ?? [];
const at = (node: XmlNode | undefined, ...names: readonly string[]): XmlNode | undefined =>
  names.reduce((found: XmlNode | undefined, name) => all(found, name)[0], node);
const textAt = (node: XmlNode | undefined, ...names: readonly string[]): string => at(node, ...names)?.text ?? '';

/** A day, of a date or of an instant as the bank's clock shows it; null where it is none. */
function dayAt(node: XmlNode | undefined, name: string): IsoDate | null {
  const text = (textAt(node, name, 'Dt') || textAt(node, name, 'DtTm')).slice(0, 10);
  return isIsoDate(text) ? text : null;
}

/** An amount with its sign by CdtDbtInd alone, which a reversal states as it moves the account; null where it is none. */
function amountAt(node: XmlNode, currency: Currency): Minor | null {
  const amount = at(node, 'Amt');
  const of = amount?.attributes.Ccy ?? currency;
  const read = amount === undefined || of !== currency ? null : readBankAmount(amount.text.replace(/^-/, ''), currency);
  if (read === null) return null;
  return textAt(node, 'CdtDbtInd') === 'DBIT' ? negated(read) : read;
}

function balanceOf(statement: XmlNode, currency: Currency, ...codes: readonly string[]): Minor | null {
  const found = all(statement, 'Bal').filter((bal) => codes.includes(textAt(bal, 'Tp', 'CdOrPrtry', 'Cd')));
  const [one] = codes.flatMap((code) => found.filter((bal) => textAt(bal, 'Tp', 'CdOrPrtry', 'Cd') === code));
  return one === undefined ? null : amountAt(one, currency);
}

/** Banks write these where a payer gave no reference. */
const NO_REFERENCE = new Set(['NOTPROVIDED', 'NOT PROVIDED', 'NONREF', 'NONE', 'N/A']);
const given = (reference: string): string => (NO_REFERENCE.has(reference.toUpperCase()) ? '' : reference);

/** The other party: who paid us, or whom we paid. */
function partyOf(details: XmlNode | undefined, incoming: boolean): { readonly name: string; readonly iban: string } {
  const parties = at(details, 'RltdPties');
  const role = incoming ? 'Dbtr' : 'Cdtr';
  const account = at(parties, `${role}Acct`, 'Id');
  const ultimate = at(parties, `Ultmt${role}`);
  const nameOf = (node: XmlNode | undefined) => textAt(node, 'Nm') || textAt(node, 'Pty', 'Nm');
  return {
    name: bankText(nameOf(at(parties, role)) || nameOf(ultimate)),
    iban: textAt(account, 'IBAN') || textAt(account, 'Othr', 'Id'),
  };
}

interface Entry {
  readonly date: IsoDate;
  readonly amount: Minor;
  readonly reference: string;
  readonly info: string;
}

function lineOf(entry: Entry, details: XmlNode | undefined, amount: Minor, ordinal: string): StatementLine {
  const remittance = at(details, 'RmtInf');
  const structured = all(remittance, 'Strd').map((one) => textAt(one, 'CdtrRefInf', 'Ref'));
  const free = all(remittance, 'Ustrd').map((one) => one.text);
  const notes = all(remittance, 'Strd').flatMap((one) => all(one, 'AddtlRmtInf').map((note) => note.text));
  const endToEnd = given(textAt(details, 'Refs', 'EndToEndId'));
  const own = textAt(details, 'Refs', 'AcctSvcrRef');
  return {
    date: entry.date,
    amount,
    text: bankText(...free, ...notes, textAt(details, 'AddtlTxInf'), free.length === 0 ? entry.info : ''),
    ...partyOf(details, amount >= 0n),
    reference: structured.find(Boolean) ?? endToEnd,
    bankReference: own || (entry.reference === '' ? '' : entry.reference + ordinal),
  };
}

/** The amount of one payment of a batch, in the currency of the account; null where the bank does not say it. */
function detailAmount(details: XmlNode, entry: Entry, currency: Currency): Minor | null {
  const direct =
    at(details, 'Amt') ?? at(details, 'AmtDtls', 'TxAmt', 'Amt') ?? at(details, 'AmtDtls', 'InstdAmt', 'Amt');
  if (direct === undefined || (direct.attributes.Ccy ?? currency) !== currency) return null;
  const read = readBankAmount(direct.text, currency);
  if (read === null) return null;
  const sign = textAt(details, 'CdtDbtInd') || (entry.amount < 0n ? 'DBIT' : 'CRDT');
  return sign === 'DBIT' ? negated(read) : read;
}

/** Lines of an entry: one for each payment of a batch where their amounts make the entry, else one. */
function linesOf(entry: Entry, node: XmlNode, currency: Currency): readonly StatementLine[] {
  const details = all(node, 'NtryDtls').flatMap((one) => all(one, 'TxDtls'));
  if (details.length > 1) {
    const amounts = details.map((one) => detailAmount(one, entry, currency));
    const known = amounts.filter((amount) => amount !== null);
    if (known.length === details.length && total(known) === entry.amount)
      return details.map((one, i) => lineOf(entry, one, known[i] ?? entry.amount, `/${i + 1}`));
    const whole = lineOf(entry, undefined, entry.amount, '');
    return [
      { ...whole, text: bankText(entry.info, ...details.map((one) => lineOf(entry, one, entry.amount, '').text)) },
    ];
  }
  return [lineOf(entry, details[0], entry.amount, '')];
}

/** Booked entries count; those that are only announced (PDNG, INFO, FUTR) do not. */
function isBooked(entry: XmlNode): boolean {
  const status = textAt(entry, 'Sts', 'Cd') || textAt(entry, 'Sts');
  return status === '' || status === 'BOOK';
}

function readStatement(node: XmlNode, path: string): Result<Statement> {
  const account = at(node, 'Acct');
  const stated =
    textAt(account, 'Ccy') || at(node, 'Bal', 'Amt')?.attributes.Ccy || at(node, 'Ntry', 'Amt')?.attributes.Ccy;
  const currency = CURRENCIES.find((known) => known === stated);
  if (currency === undefined) return unreadable(path, 'statement-in-known-currency', stated ?? '');
  const lines: StatementLine[] = [];
  for (const [i, entry] of all(node, 'Ntry').entries()) {
    if (!isBooked(entry)) continue;
    const where = `${path}, entry ${i + 1}`;
    const amount = amountAt(entry, currency);
    if (amount === null) return unreadable(where, { what: 'statement-amount', currency }, textAt(entry, 'Amt'));
    const date = dayAt(entry, 'BookgDt') ?? dayAt(entry, 'ValDt');
    if (date === null) return unreadable(where, 'statement-day', textAt(entry, 'BookgDt'));
    const reference = textAt(entry, 'AcctSvcrRef') || textAt(entry, 'NtryRef');
    lines.push(...linesOf({ date, amount, reference, info: textAt(entry, 'AddtlNtryInf') }, entry, currency));
    if (lines.length > MOST_LINES) return unreadable('', { what: 'fewer-lines', most: MOST_LINES });
  }
  return accept({
    number: textAt(node, 'ElctrncSeqNb') || textAt(node, 'LglSeqNb') || textAt(node, 'Id'),
    account: textAt(account, 'Id', 'IBAN') || textAt(account, 'Id', 'Othr', 'Id'),
    currency,
    opening: balanceOf(node, currency, 'OPBD', 'PRCD'),
    closing: balanceOf(node, currency, 'CLBD'),
    lines,
  });
}

/** Statements of a camt.053 document that was read; other messages of its family are refused by their number. */
export function readCamt(root: XmlNode): Result<readonly Statement[]> {
  const message = NAMESPACE.exec(root.name)?.[1];
  if (message !== '053')
    return unreadable('', { what: 'camt-053', found: message === undefined ? '' : `camt.${message}` });
  const statements: Statement[] = [];
  for (const [i, node] of all(at(root, 'BkToCstmrStmt'), 'Stmt').entries()) {
    const read = readStatement(node, `statement ${i + 1}`);
    if (!read.ok) return read;
    statements.push(read.value);
  }
  return statements.length === 0 ? unreadable('', 'file-with-statement') : accept(statements);
}
