import { type Minor, minus, NOTHING, negated, total } from '@/core/kernel/money';
import { type Account, accountFor } from '../account';
import type { Side } from '../entry';

/**
 * Paying the authority: tax payable and what it charges with it against the money. Money that differs, as where the
 * authority takes another currency at another rate than the return was posted at, is an exchange difference.
 * @param payable account for tax payable of the registration.
 */
export function taxPaymentSides(
  paid: {
    readonly amount: Minor;
    readonly charges: readonly { readonly account: string; readonly amount: Minor }[];
    readonly account: string;
    readonly money: Minor;
  },
  payable: string,
  chart: readonly Account[],
): readonly Side[] {
  const charged = total(paid.charges.map(({ amount }) => amount));
  const difference = minus(minus(paid.money, charged), paid.amount);
  return [
    { account: payable, amount: paid.amount },
    ...paid.charges.map(({ account, amount }) => ({ account, amount })),
    ...(difference === NOTHING ? [] : [{ account: accountFor(chart, 'exchange'), amount: difference }]),
    { account: paid.account, amount: negated(paid.money) },
  ];
}
