import { decodeXml, readXml } from '@/core/einvoice/xml/readXml';
import type { Currency } from '@/core/kernel/currency';
import { accept, type Result } from '@/core/kernel/result';
import { readTextFile } from '@/core/kernel/textFile';
import { compactIban } from '@/core/parties/iban';
import type { StatementColumns } from '@/core/parties/statementColumns';
import { readCamt } from './camt';
import { type Rows, readCsvStatement, statementRows } from './csv';
import { readOfx } from './ofx';
import { type Statement, unreadable } from './statement';

/** The forms of statements that are read: ISO 20022 camt.053, Open Financial Exchange 1 and 2, CSV. */
export type StatementFormat = 'camt.053' | 'OFX' | 'CSV';

/** A file of a bank as it was taken in: its statements, or the rows of a CSV file, whose columns are yet to be told. */
export type StatementFile =
  | { readonly format: Exclude<StatementFormat, 'CSV'>; readonly statements: readonly Statement[] }
  | { readonly format: 'CSV'; readonly rows: Rows };

/** Largest file that is taken, in bytes. */
const LARGEST = 20 * 2 ** 20;

/** Takes a file of a bank by what it holds, not by its name. Files come from strangers: nothing in them is run or followed. */
export function readStatementFile(bytes: Uint8Array): Result<StatementFile> {
  if (bytes.length > LARGEST) return unreadable('', { what: 'file-of', mib: LARGEST / 2 ** 20 });
  if (bytes.length === 0) return unreadable('', 'file-with-content');
  const { text } = readTextFile(bytes);
  const head = text.slice(0, 2000);
  if (/OFXHEADER|<OFX>/.test(head)) {
    const read = readOfx(text);
    return read.ok ? accept({ format: 'OFX', statements: read.value }) : read;
  }
  if (/^\s*</.test(head.replace(/^\ufeff/, ''))) {
    const decoded = decodeXml(bytes);
    if (!decoded.ok) return decoded;
    const xml = readXml(decoded.value);
    if (!xml.ok) return xml;
    const read = readCamt(xml.value);
    return read.ok ? accept({ format: 'camt.053', statements: read.value }) : read;
  }
  // Pictures, archives and the like hold signs that no text has.
  if (head.includes('\u0000') || head.startsWith('%PDF')) return unreadable('', 'file-with-statement');
  const rows = statementRows(text);
  if (rows === null || rows.length === 0) return unreadable('', 'file-with-statement');
  return accept({ format: 'CSV', rows });
}

/** An account whose statements are read. */
export interface StatementAccount {
  readonly currency: Currency;
  readonly iban: string;
  readonly local: { readonly code: string; readonly number: string };
}

const bare = (text: string): string => text.replace(/[\s-]/g, '').toUpperCase();

/** Whether a statement can be one of the account: its currency, and its number, where both say one. */
export function isOf(statement: Statement, { currency, iban, local }: StatementAccount): boolean {
  if (statement.currency !== currency) return false;
  const stated = bare(statement.account);
  const ours = [compactIban(iban), bare(local.number), bare(local.code + local.number)].filter(Boolean);
  if (stated === '' || ours.length === 0) return true;
  // Banks give the number of an IBAN alone, or with stars for what they hide.
  const shown = stated.replace(/^[X*]+/, '');
  return ours.some((one) => one === stated || (shown.length >= 4 && one.endsWith(shown)));
}

/** The statements of a file that are of the account; CSV is read by its columns. */
export function statementsOf(
  file: StatementFile,
  account: StatementAccount,
  columns: StatementColumns | undefined,
): Result<readonly Statement[]> {
  if (file.format === 'CSV') {
    if (columns === undefined) return unreadable('', 'columns-of-statement');
    const read = readCsvStatement(file.rows, columns, account.currency);
    return read.ok ? accept([read.value]) : read;
  }
  const ours = file.statements.filter((statement) => isOf(statement, account));
  const [first] = file.statements;
  if (ours.length > 0 || first === undefined) return accept(ours);
  const stated = `${first.account} ${first.currency}`.trim();
  const called = `${account.iban || account.local.number} ${account.currency}`.trim();
  return unreadable('', { what: 'statement-of-account', account: called, stated });
}
