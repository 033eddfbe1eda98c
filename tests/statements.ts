import Papa from 'papaparse';
import type { Statement, StatementLine } from '@/core/bank/statement';
import { currency } from '@/core/kernel/currency';
import { isoDate } from '@/core/kernel/date';
import { type Minor, minor, plus, writeMoney } from '@/core/kernel/money';
import type { ColumnRole, StatementColumns } from '@/core/parties/statementColumns';

/* Statements written in each form that is read, for tests that read them back. */

/** A line that says nothing but what is given. */
export function statementLine(over: Partial<StatementLine> & { readonly amount: Minor }): StatementLine {
  return { date: isoDate('2026-01-15'), text: '', name: '', iban: '', reference: '', bankReference: '', ...over };
}

export function statementOf(lines: readonly StatementLine[], over: Partial<Statement> = {}): Statement {
  const opening = over.opening ?? minor(0n);
  const closing = lines.reduce((sum, { amount }) => plus(sum, amount), opening);
  return {
    number: '1',
    account: 'IE31CPTB99000012345678',
    currency: currency('EUR'),
    opening,
    closing,
    lines,
    ...over,
  };
}

const escaped = (text: string): string => text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;');
const tag = (name: string, inner: string): string => (inner === '' ? '' : `<${name}>${inner}</${name}>`);
const size = (amount: Minor, of: Statement): string => writeMoney(minor(amount < 0n ? -amount : amount), of.currency);
const sign = (amount: Minor): string => `<CdtDbtInd>${amount < 0n ? 'DBIT' : 'CRDT'}</CdtDbtInd>`;

function camtEntry(line: StatementLine, of: Statement): string {
  const role = line.amount < 0n ? 'Cdtr' : 'Dbtr';
  const party =
    tag(role, tag('Nm', escaped(line.name))) + tag(`${role}Acct`, tag('Id', tag('IBAN', escaped(line.iban))));
  const remittance = line.text
    .split('\n')
    .map((text) => tag('Ustrd', escaped(text)))
    .join('');
  return `<Ntry><Amt Ccy="${of.currency}">${size(line.amount, of)}</Amt>${sign(line.amount)}<Sts>BOOK</Sts>
<BookgDt><Dt>${line.date}</Dt></BookgDt>${tag('AcctSvcrRef', escaped(line.bankReference))}<NtryDtls><TxDtls>
${tag('Refs', tag('EndToEndId', escaped(line.reference)))}${tag('RltdPties', party)}${tag('RmtInf', remittance)}
</TxDtls></NtryDtls></Ntry>`;
}

/** camt.053.001.02. */
export function writeCamt(statement: Statement): string {
  const balance = (code: string, amount: Minor | null) =>
    amount === null
      ? ''
      : `<Bal><Tp><CdOrPrtry><Cd>${code}</Cd></CdOrPrtry></Tp><Amt Ccy="${statement.currency}">${size(amount, statement)}</Amt>${sign(amount)}</Bal>`;
  return `<?xml version="1.0" encoding="UTF-8"?>
<Document xmlns="urn:iso:std:iso:20022:tech:xsd:camt.053.001.02"><BkToCstmrStmt><Stmt><Id>1</Id>
<Acct><Id><IBAN>${statement.account}</IBAN></Id><Ccy>${statement.currency}</Ccy></Acct>
${balance('OPBD', statement.opening)}${balance('CLBD', statement.closing)}
${statement.lines.map((line) => camtEntry(line, statement)).join('')}</Stmt></BkToCstmrStmt></Document>`;
}

/** OFX 1 with `end` false, OFX 2 with it true. */
export function writeOfx(statement: Statement, end: boolean): string {
  const element = (name: string, text: string) =>
    text === '' ? '' : `<${name}>${escaped(text.replaceAll('\n', ' '))}${end ? `</${name}>` : ''}\n`;
  const lines = statement.lines.map(
    (line) =>
      `<STMTTRN>${element('TRNTYPE', line.amount < 0n ? 'DEBIT' : 'CREDIT')}${element('DTPOSTED', `${line.date.replaceAll('-', '')}120000`)}${element('TRNAMT', writeMoney(line.amount, statement.currency))}${element('FITID', line.bankReference)}${element('REFNUM', line.reference)}${element('NAME', line.name)}${element('MEMO', line.text)}</STMTTRN>\n`,
  );
  const closing = statement.closing === null ? '' : writeMoney(statement.closing, statement.currency);
  return `${end ? '<?xml version="1.0"?>\n<?OFX OFXHEADER="200" VERSION="220"?>' : 'OFXHEADER:100\nDATA:OFXSGML\n'}
<OFX><BANKMSGSRSV1><STMTTRNRS><STMTRS>${element('CURDEF', statement.currency)}<BANKACCTFROM>${element('ACCTID', statement.account)}</BANKACCTFROM>
<BANKTRANLIST>${lines.join('')}</BANKTRANLIST><LEDGERBAL>${element('BALAMT', closing)}</LEDGERBAL></STMTRS></STMTTRNRS></BANKMSGSRSV1></OFX>`;
}

const ROLES: readonly ColumnRole[] = [
  'date',
  'name',
  'iban',
  'text',
  'reference',
  'bank-reference',
  'amount',
  'balance',
];
const CSV_HEADS = ['Date', 'Name', 'IBAN', 'Details', 'Reference', 'Transaction ID', 'Amount', 'Balance'];

/** How `writeCsvStatement` is read. */
export const CSV_COLUMNS: StatementColumns = {
  skip: 1,
  heads: CSV_HEADS,
  roles: ROLES,
  dates: 'ymd',
  decimal: '.',
  reversed: false,
};

export function writeCsvStatement(statement: Statement): string {
  let balance = statement.opening ?? minor(0n);
  const rows = statement.lines.map((line) => {
    balance = plus(balance, line.amount);
    const money = (amount: Minor) => writeMoney(amount, statement.currency);
    const { date, name, iban, text, reference, bankReference, amount } = line;
    return [date, name, iban, text, reference, bankReference, money(amount), money(balance)];
  });
  return Papa.unparse([CSV_HEADS, ...rows]);
}
