import type { IsoDate } from '@/core/kernel/date';
import type { Minor } from '@/core/kernel/money';

/** What of the whole book is held against each other. */
export type BookCheckName =
  /** Debits are credits in each entry. */
  | 'entries'
  /** Balances kept by account and month are those of the entries. */
  | 'kept-balances'
  /** Each period's documents, tax entries and tax account agree. */
  | 'periods'
  /** Receivables are what is open on documents, less money on account. */
  | 'receivables'
  /** Withholding claims are what was withheld less what was claimed. */
  | 'withholding'
  /** Deferred income is what plans still have to earn. */
  | 'deferred-income'
  /** Nothing is left on unrealised differences once each revaluation is taken back. */
  | 'unrealised'
  /** Bank accounts are as they were when they were reconciled. */
  | 'bank'
  /** Seals fit their documents, and numbers follow each other without a gap. */
  | 'seals'
  /** Rows are whole, name what is there, and say of each other what they are: open amounts, figures, references. */
  | 'rows';

/** One thing that does not fit, in words of its own: a document number, the text of an entry, a period. */
export interface BookDifference {
  readonly subject: string;
  /** Why, where it is known. */
  readonly cause: string;
  /** How far the two lie apart, in home currency; null where it is no matter of amounts. */
  readonly amount: Minor | null;
  /** The tax period that it lies in, where it lies in one. */
  readonly period?: { readonly registrationId: string; readonly start: IsoDate };
}

/** What came of one check. */
export interface BookCheck {
  readonly check: BookCheckName;
  readonly holds: boolean;
  /** The two that were compared, in home currency; null where it is no matter of two amounts. */
  readonly compared: { readonly expected: Minor; readonly found: Minor } | null;
  readonly differences: readonly BookDifference[];
}

/** A check of two amounts; those that explain a difference are named, what they leave stands without a cause. */
export function amountsAgree(
  check: BookCheckName,
  expected: Minor,
  found: Minor,
  explained: readonly BookDifference[] = [],
): BookCheck {
  const known = explained.reduce((sum, { amount }) => sum + (amount ?? 0n), 0n);
  const rest = found - expected - known;
  const differences =
    rest === 0n ? explained : [...explained, { subject: '', cause: 'not explained', amount: rest as Minor }];
  return {
    check,
    holds: found === expected,
    compared: { expected, found },
    differences: found === expected ? [] : differences,
  };
}

/** True when all of it fits. */
export function bookHolds(checks: readonly BookCheck[]): boolean {
  return checks.every(({ holds }) => holds);
}
