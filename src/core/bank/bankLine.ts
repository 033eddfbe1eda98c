import type { IsoDate } from '@/core/kernel/date';
import { digest } from '@/core/kernel/digest';
import { type Minor, minus, NOTHING, total } from '@/core/kernel/money';
import type { StatementFormat } from './readStatements';
import type { StatementLine } from './statement';

/** What a bank line was found to be: an entry of the book that moved the account. */
export interface BankMatch {
  readonly kind: 'receipt' | 'refund' | 'tax-payment' | 'booking' | 'entry';
  /** Id of the receipt, refund or payment; of the entry for others. */
  readonly id: string;
  readonly entryId: string;
  /** Number of the record, or what the entry is for. */
  readonly number: string;
  /** Of the line, in the currency of its account, with its sign. */
  readonly amount: Minor;
  /** It was made from the line, and goes when the match is undone. */
  readonly made: boolean;
  /** Entries of card payments that a payout brought; missing for all others. */
  readonly covers?: readonly string[];
}

/** A line of a statement in the book, and what it was matched with. */
export interface BankLine extends StatementLine {
  readonly id: string;
  readonly bankAccountId: string;
  readonly statementId: string;
  /** Place in its statement, from 1. */
  readonly position: number;
  /** By which it is known when it is read again; see `lineKeys`. */
  readonly key: string;
  readonly matches: readonly BankMatch[];
  /** Entries of its matches and of what they cover, kept for an index. */
  readonly entryIds: readonly string[];
  /** 1 while something of it is not matched: database indexes hold no booleans. */
  readonly isOpen: 0 | 1;
}

/** A statement that was read; its lines are rows of their own. */
export interface BankStatement {
  readonly id: string;
  readonly bankAccountId: string;
  readonly number: string;
  readonly format: StatementFormat;
  readonly fileName: string;
  readonly from: IsoDate;
  readonly until: IsoDate;
  readonly opening: Minor | null;
  readonly closing: Minor | null;
  /** Lines that it brought, and those that were known. */
  readonly added: number;
  readonly known: number;
  /** Instant. */
  readonly readAt: string;
  readonly operator: string;
}

/**
 * Keys of the lines of a statement, by which they are known when a later file holds them again: the bank's reference where
 * there is one, else day, amount and words; lines that are alike are told apart by their order.
 */
export function lineKeys(lines: readonly StatementLine[]): readonly string[] {
  const seen = new Map<string, number>();
  return lines.map(({ date, amount, text, name, bankReference }) => {
    const said = bankReference === '' ? digest(`${name}\n${text}`).slice(0, 24) : bankReference;
    const key = `${date}|${amount}|${said}`;
    const count = (seen.get(key) ?? 0) + 1;
    seen.set(key, count);
    return count === 1 ? key : `${key}|${count}`;
  });
}

/** What of a line nothing was found for yet. */
export function openOf({ amount, matches }: Pick<BankLine, 'amount' | 'matches'>): Minor {
  return minus(amount, total(matches.map((match) => match.amount)));
}

/** A line with these matches in place of its own, and what is kept beside them. */
export function matchedWith(line: BankLine, matches: readonly BankMatch[]): BankLine {
  const open = openOf({ amount: line.amount, matches });
  return {
    ...line,
    matches,
    entryIds: matches.flatMap(({ entryId, covers = [] }) => [entryId, ...covers]),
    isOpen: open === NOTHING ? 0 : 1,
  };
}
