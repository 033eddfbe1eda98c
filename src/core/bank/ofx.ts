import { CURRENCIES, type Currency } from '@/core/kernel/currency';
import { type IsoDate, isIsoDate } from '@/core/kernel/date';
import { negated } from '@/core/kernel/money';
import { accept, type Result } from '@/core/kernel/result';
import { bankText, MOST_LINES, readBankAmount, type Statement, type StatementLine, unreadable } from './statement';

/* Open Financial Exchange 1 (SGML, elements without an end) and 2 (XML). One reader takes both: a tag with a text behind it is an element, of others only the aggregates below are gone into. */

const AGGREGATES = new Set([
  'OFX',
  'BANKMSGSRSV1',
  'CREDITCARDMSGSRSV1',
  'STMTTRNRS',
  'CCSTMTTRNRS',
  'STMTRS',
  'CCSTMTRS',
  'BANKACCTFROM',
  'CCACCTFROM',
  'BANKACCTTO',
  'BANKTRANLIST',
  'STMTTRN',
  'PAYEE',
  'CURRENCY',
  'ORIGCURRENCY',
  'LEDGERBAL',
  'AVAILBAL',
]);

interface Aggregate {
  readonly name: string;
  readonly elements: Map<string, string>;
  readonly parts: Aggregate[];
}

/** Deepest that aggregates lie in each other; the standard needs eight. */
const DEEPEST = 20;

const ENTITIES: Readonly<Record<string, string>> = { amp: '&', lt: '<', gt: '>', quot: '"', apos: "'", nbsp: ' ' };

function plain(text: string): string {
  return text
    .replace(/&(?:#(\d{1,6})|([a-z]{2,5}));/g, (whole, number: string | undefined, name: string | undefined) => {
      if (number === undefined) return ENTITIES[name ?? ''] ?? whole;
      const code = Number(number);
      return code > 31 && code < 0x110000 && (code < 0xd800 || code > 0xdfff) ? String.fromCodePoint(code) : whole;
    })
    .trim();
}

/** The aggregates of a file; null where they lie deeper than any standard has them. */
function treeOf(text: string): Aggregate | null {
  const root: Aggregate = { name: '', elements: new Map(), parts: [] };
  const open: Aggregate[] = [root];
  for (const [, end, name = '', value = ''] of text.matchAll(/<(\/?)([A-Z][A-Z0-9.]{0,40})>([^<]*)/g)) {
    const top = open.at(-1) ?? root;
    if (end === '/') {
      const from = open.findLastIndex((one) => one.name === name);
      if (from > 0) open.length = from;
    } else if (AGGREGATES.has(name) && value.trim() === '') {
      const made: Aggregate = { name, elements: new Map(), parts: [] };
      top.parts.push(made);
      open.push(made);
      if (open.length > DEEPEST) return null;
    } else if (value.trim() !== '' && !top.elements.has(name)) top.elements.set(name, plain(value));
  }
  return root;
}

const within = (of: Aggregate, ...names: readonly string[]): readonly Aggregate[] =>
  names.reduce(
    (found: readonly Aggregate[], name) => found.flatMap(({ parts }) => parts.filter((p) => p.name === name)),
    [of],
  );
const element = (of: Aggregate | undefined, name: string): string => of?.elements.get(name) ?? '';

/** `20260131120000[-5:EST]` is 31 January by the bank's clock. */
function dayOf(text: string): IsoDate | null {
  const day = text.replace(/^(\d{4})(\d{2})(\d{2}).*$/s, '$1-$2-$3');
  return isIsoDate(day) ? day : null;
}

function readLine(of: Aggregate, currency: Currency, path: string): Result<StatementLine> {
  const amount = readBankAmount(element(of, 'TRNAMT'), currency);
  if (amount === null) return unreadable(path, { what: 'statement-amount', currency }, element(of, 'TRNAMT'));
  const date = dayOf(element(of, 'DTPOSTED'));
  if (date === null) return unreadable(path, 'statement-day', element(of, 'DTPOSTED'));
  const [payee] = within(of, 'PAYEE');
  const [to] = within(of, 'BANKACCTTO');
  return accept({
    date,
    amount,
    text: bankText(element(of, 'MEMO')),
    name: bankText(element(of, 'NAME') || element(payee, 'NAME')),
    iban: element(to, 'ACCTID'),
    reference: element(of, 'CHECKNUM') || element(of, 'REFNUM'),
    bankReference: element(of, 'FITID'),
  });
}

const OUT = new Set(['DEBIT', 'PAYMENT', 'CHECK', 'FEE', 'SRVCHG', 'DIRECTDEBIT']);
const IN = new Set(['CREDIT', 'DEP', 'DIRECTDEP', 'INT']);

/**
 * Some banks write amounts without a sign, or the wrong way round, and say the direction by the kind of line alone: where
 * no line that goes out is below zero, kinds say it.
 */
function signed(lines: readonly StatementLine[], kinds: readonly string[]): readonly StatementLine[] {
  const out = lines.filter((_, i) => OUT.has(kinds[i] ?? ''));
  if (out.length === 0 || out.some(({ amount }) => amount < 0n)) return lines;
  return lines.map((line, i) => {
    const kind = kinds[i] ?? '';
    const contrary = OUT.has(kind) ? line.amount > 0n : IN.has(kind) && line.amount < 0n;
    return contrary ? { ...line, amount: negated(line.amount) } : line;
  });
}

function readStatement(of: Aggregate, path: string): Result<Statement> {
  const stated = element(of, 'CURDEF');
  const currency = CURRENCIES.find((known) => known === stated);
  if (currency === undefined) return unreadable(path, 'statement-in-known-currency', stated);
  const [from] = [...within(of, 'BANKACCTFROM'), ...within(of, 'CCACCTFROM')];
  const [list] = within(of, 'BANKTRANLIST');
  const taken: StatementLine[] = [];
  const transactions = list === undefined ? [] : within(list, 'STMTTRN');
  for (const [i, one] of transactions.entries()) {
    const read = readLine(one, currency, `${path}, entry ${i + 1}`);
    if (!read.ok) return read;
    taken.push(read.value);
    if (taken.length > MOST_LINES) return unreadable('', { what: 'fewer-lines', most: MOST_LINES });
  }
  const lines = signed(
    taken,
    transactions.map((one) => element(one, 'TRNTYPE')),
  );
  const balance = element(within(of, 'LEDGERBAL')[0], 'BALAMT');
  const closing = balance === '' ? null : readBankAmount(balance, currency);
  // Many banks list the newest first.
  const newestFirst = lines.length > 1 && (lines[0]?.date ?? '') > (lines.at(-1)?.date ?? '');
  return accept({
    number: '',
    account: element(from, 'ACCTID'),
    currency,
    opening: null,
    closing,
    lines: newestFirst ? lines.toReversed() : lines,
  });
}

/** Statements of an OFX file, of bank accounts and of cards. */
export function readOfx(text: string): Result<readonly Statement[]> {
  const root = treeOf(text);
  if (root === null) return unreadable('', { what: 'less-nesting', most: DEEPEST });
  const found = [
    ...within(root, 'OFX', 'BANKMSGSRSV1', 'STMTTRNRS', 'STMTRS'),
    ...within(root, 'OFX', 'CREDITCARDMSGSRSV1', 'CCSTMTTRNRS', 'CCSTMTRS'),
  ];
  const statements: Statement[] = [];
  for (const [i, one] of found.entries()) {
    const read = readStatement(one, `statement ${i + 1}`);
    if (!read.ok) return read;
    statements.push(read.value);
  }
  return statements.length === 0 ? unreadable('', 'file-with-statement') : accept(statements);
}
