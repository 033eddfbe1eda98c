import type { Currency } from '@/core/kernel/currency';
import type { IsoDate } from '@/core/kernel/date';
import { type Decimal, isDecimal, trimmed } from '@/core/kernel/decimal';
import { type Minor, plus, readMoney, total } from '@/core/kernel/money';
import { type Refusal, refuse } from '@/core/kernel/result';
import type { Wanted } from '@/core/kernel/wanted';

/** A line of a bank statement, as its file says it. */
export interface StatementLine {
  /** Day it was booked. */
  readonly date: IsoDate;
  /** In the currency of the account; above zero for money that came in. */
  readonly amount: Minor;
  /** What was written with the payment, line by line. */
  readonly text: string;
  /** The other party; empty where the bank does not say. */
  readonly name: string;
  readonly iban: string;
  /** Reference that the payer gave: end-to-end id or structured reference. */
  readonly reference: string;
  /** The bank's own reference of the line; empty where it gives none. */
  readonly bankReference: string;
}

/** A statement of one account. */
export interface Statement {
  /** Its number or id at the bank; empty for none. */
  readonly number: string;
  /** IBAN or number of the account; empty where the file does not say. */
  readonly account: string;
  readonly currency: Currency;
  /** Balances before the first line and behind the last one; null where the file does not say. */
  readonly opening: Minor | null;
  readonly closing: Minor | null;
  /** Oldest first, in the bank's order. */
  readonly lines: readonly StatementLine[];
}

/** Most lines of one file, of which no bank sends a tenth. */
export const MOST_LINES = 50_000;
/** Longest text that is kept of a line, in characters. */
const LONGEST_TEXT = 1000;

/** Text of a bank as it is kept: without the blanks that fill its fields, and not endless. */
export function bankText(...parts: readonly (string | undefined)[]): string {
  const lines = parts.flatMap((part) => (part ?? '').split('\n')).map((part) => part.replace(/\s+/g, ' ').trim());
  return lines
    .filter((line, i) => line !== '' && lines.indexOf(line) === i)
    .join('\n')
    .slice(0, LONGEST_TEXT);
}

/** An amount with a point or a comma before its decimals, as statement formats write it; null when it is none. */
export function readBankAmount(text: string, currency: Currency): Minor | null {
  const plain = text
    .trim()
    .replace(/^\+/, '')
    .replace(',', '.')
    .replace(/^(-?)\./, '$10.')
    .replace(/\.$/, '');
  return isDecimal(plain) ? readMoney(trimmed(plain as Decimal), currency) : null;
}

/** How far its lines lie from leading from the opening to the closing balance; zero where one of them is not said. */
export function unexplainedBy({ opening, closing, lines }: Statement): Minor {
  if (opening === null || closing === null) return 0n as Minor;
  return (closing - plus(opening, total(lines.map(({ amount }) => amount)))) as Minor;
}

/** Why a statement can't be read; `path` says where: `line 3`, or empty for the file. */
export function unreadable(
  path: string,
  wanted: Wanted,
  found?: string,
): { readonly ok: false; readonly refusals: readonly Refusal[] } {
  return refuse({ code: 'invalid', path, wanted, ...(found !== undefined && { found: found.slice(0, 80) }) });
}
