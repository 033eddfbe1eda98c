import type { IsoMonth } from '@/core/kernel/date';
import { type Minor, minor, NOTHING, plus } from '@/core/kernel/money';
import type { Account } from './account';

/** What an account moved by in a month: debits less credits. Kept up with every entry. */
export interface AccountMonth {
  readonly account: string;
  readonly month: IsoMonth;
  readonly amount: Minor;
}

export interface TrialRow {
  readonly account: Account;
  readonly debit: Minor;
  readonly credit: Minor;
}

export interface TrialBalance {
  readonly rows: readonly TrialRow[];
  readonly debit: Minor;
  readonly credit: Minor;
}

/**
 * Balances of all accounts up to and with `until`; accounts that never moved are left out. An account
 * that the chart does not hold stands under its code, so that debits and credits stay equal.
 */
export function trialBalance(
  chart: readonly Account[],
  months: readonly AccountMonth[],
  until: IsoMonth,
): TrialBalance {
  const balances = new Map<string, Minor>();
  for (const { account, month, amount } of months)
    if (month <= until) balances.set(account, plus(balances.get(account) ?? NOTHING, amount));
  const known = new Set(chart.map((account) => account.code));
  const strange = [...balances.keys()]
    .filter((code) => !known.has(code))
    .sort()
    .map((code): Account => ({ code, name: 'Not in the chart of accounts', type: 'expense', role: '' }));
  const rows = [...chart, ...strange].flatMap((account): TrialRow[] => {
    const balance = balances.get(account.code);
    if (balance === undefined) return [];
    return [{ account, debit: balance > 0n ? balance : NOTHING, credit: balance < 0n ? minor(-balance) : NOTHING }];
  });
  return {
    rows,
    debit: rows.reduce((sum, row) => plus(sum, row.debit), NOTHING),
    credit: rows.reduce((sum, row) => plus(sum, row.credit), NOTHING),
  };
}
