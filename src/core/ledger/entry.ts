import type { Currency } from '@/core/kernel/currency';
import type { IsoDate } from '@/core/kernel/date';
import { type Minor, total } from '@/core/kernel/money';

export type EntryKind =
  | 'invoice'
  | 'credit-note'
  | 'takings'
  | 'opening'
  | 'cancellation'
  | 'receipt'
  | 'allocation'
  | 'refund'
  | 'dishonour'
  | 'write-off'
  | 'claim'
  | 'filing'
  | 'reopening'
  | 'tax-payment'
  | 'revaluation'
  | 'deferral'
  | 'bank'
  | 'bank-opening'
  | 'account-opening'
  | 'closing'
  | 'journal';

/** The same amount in the currency of the document, where that is not the home currency. */
export interface AmountInDocument {
  readonly currency: Currency;
  readonly amount: Minor;
}

/** One double entry. Append-only: it is reversed by another, never changed. */
export interface JournalEntry {
  readonly id: string;
  readonly date: IsoDate;
  readonly kind: EntryKind;
  readonly text: string;
  /** Id of the document (of an allocation or a write-off, the debt), receipt, customer (of a refund), registration (of a claim), bank line, tax period or closed year behind it; empty for a manual journal. */
  readonly sourceId: string;
  /** Instant it was written. */
  readonly at: string;
}

/** One side of an entry. Debits are above zero, credits below, in minor units of the home currency. */
export interface JournalLine {
  /** `<entry id>:<position>`. */
  readonly id: string;
  readonly entryId: string;
  readonly account: string;
  readonly date: IsoDate;
  readonly amount: Minor;
  readonly text: string;
  /** Tax lines of documents and filings: id of the period they belong to. Empty for all others. */
  readonly taxPeriodId: string;
  /** Tax lines of documents: the code. Empty for all others. */
  readonly taxCode: string;
  readonly inDocument?: AmountInDocument;
}

export interface PostedEntry {
  readonly entry: JournalEntry;
  readonly lines: readonly JournalLine[];
}

/** A line before it has its entry's id and date. */
export interface Side {
  readonly account: string;
  readonly amount: Minor;
  readonly text?: string;
  readonly taxPeriodId?: string;
  readonly taxCode?: string;
  readonly inDocument?: AmountInDocument;
}

/** True when debits equal credits. */
export function isBalanced(lines: readonly Pick<JournalLine, 'amount'>[]): boolean {
  return total(lines.map((line) => line.amount)) === 0n;
}

/**
 * Puts an entry together; sides of nothing are left out.
 * @throws RangeError when debits and credits differ: a posting rule is wrong, nothing may be written.
 */
export function entryOf(entry: JournalEntry, sides: readonly Side[]): PostedEntry {
  if (!isBalanced(sides)) throw new RangeError(`entry ${entry.text} does not balance`);
  const moved = sides.filter((side) => side.amount !== 0n);
  // Debits first, as entries are read; a journal stays as it was typed.
  const ordered =
    entry.kind === 'journal'
      ? moved
      : [...moved.filter((side) => side.amount > 0n), ...moved.filter((side) => side.amount < 0n)];
  const lines = ordered.map(
    (side, i): JournalLine => ({
      id: `${entry.id}:${String(i).padStart(3, '0')}`,
      entryId: entry.id,
      account: side.account,
      date: entry.date,
      amount: side.amount,
      text: side.text ?? entry.text,
      taxPeriodId: side.taxPeriodId ?? '',
      taxCode: side.taxCode ?? '',
      ...(side.inDocument && { inDocument: side.inDocument }),
    }),
  );
  return { entry, lines };
}
