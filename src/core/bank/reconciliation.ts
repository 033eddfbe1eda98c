import type { IsoDate } from '@/core/kernel/date';
import { type Minor, minus, plus } from '@/core/kernel/money';

/** What leads from the balance of an account in the ledger to that of its statement on a day; in its currency. */
export interface Bridge {
  readonly date: IsoDate;
  readonly statementBalance: Minor;
  readonly ledgerBalance: Minor;
  /** Lines of the bank that nothing in the book was found for. */
  readonly unmatched: Minor;
  /** Movements of the book that the bank has not shown. */
  readonly notSeen: Minor;
  /** What neither explains; zero where the account is reconciled. */
  readonly difference: Minor;
}

/** A reconciliation as it was kept: evidence of who looked at the account, and when. */
export interface Reconciliation extends Bridge {
  readonly id: string;
  readonly bankAccountId: string;
  /** Why a difference was accepted; empty where there was none. */
  readonly reason: string;
  /** Instant. */
  readonly at: string;
  readonly operator: string;
}

/** The bridge of an account on a day: ledger + what only the bank has − what only the book has = statement. */
export function bridgeOf(
  date: IsoDate,
  statementBalance: Minor,
  ledgerBalance: Minor,
  unmatched: Minor,
  notSeen: Minor,
): Bridge {
  const explained = minus(plus(ledgerBalance, unmatched), notSeen);
  return { date, statementBalance, ledgerBalance, unmatched, notSeen, difference: minus(statementBalance, explained) };
}
