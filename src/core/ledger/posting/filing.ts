import { type Minor, minor, NOTHING, negated } from '@/core/kernel/money';
import { type Account, accountFor } from '../account';
import type { Side } from '../entry';

/**
 * Filing a return: its tax moves from output tax to tax payable. What the return rounds away, when
 * it is given in whole units, goes to rounding differences.
 */
export function filingSides(
  tax: Minor,
  payable: Minor,
  accounts: { readonly output: string; readonly payable: string },
  chart: readonly Account[],
  taxPeriodId: string,
): readonly Side[] {
  const sides: Side[] = [
    { account: accounts.output, amount: tax, taxPeriodId },
    { account: accounts.payable, amount: negated(payable), taxPeriodId },
  ];
  const difference = minor(payable - tax);
  return difference === NOTHING ? sides : [...sides, { account: accountFor(chart, 'rounding'), amount: difference }];
}

/**
 * What other books feed into a return, as input tax: against the account that was chosen, as the return is filed.
 * @param due what the authority is owed by it, above zero, or owes.
 */
export function typedBoxSides(account: string, due: Minor, payable: string, taxPeriodId: string): readonly Side[] {
  if (account === '' || due === NOTHING) return [];
  return [
    { account, amount: due },
    { account: payable, amount: negated(due), taxPeriodId },
  ];
}
