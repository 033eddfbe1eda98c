import { type Minor, minor, minus, NOTHING, negated, plus, total } from '@/core/kernel/money';
import { halfUp } from '@/core/kernel/rounding';
import { type Account, accountFor } from '../account';
import type { Side } from '../entry';

/** Money that came in one way: amounts in its own currency, `home` what it was worth with its charge. */
export interface MoneyIn {
  readonly account: string;
  readonly amount: Minor;
  /** Of it, what the bank or the card company kept back. */
  readonly charge: Minor;
  readonly home: Minor;
}

/** A charge in home currency: R(charge × home ÷ amount). */
export function chargeHome({ amount, charge, home }: MoneyIn): Minor {
  return charge === NOTHING || amount === NOTHING ? NOTHING : minor(halfUp({ n: charge * home, d: amount }));
}

/**
 * Money in, in home currency: each part less its charge to the account it came to, charges to bank charges, tax that was
 * withheld to withholding claims; all of it stands to the customer’s credit.
 */
export function receiptSides(parts: readonly MoneyIn[], withheld: Minor, chart: readonly Account[]): readonly Side[] {
  const charges = parts.map(chargeHome);
  return [
    ...parts.map((part, i) => ({ account: part.account, amount: minus(part.home, charges[i] ?? NOTHING) })),
    { account: accountFor(chart, 'bank-charges'), amount: total(charges) },
    { account: accountFor(chart, 'withholding-claims'), amount: withheld },
    { account: accountFor(chart, 'receivables'), amount: negated(plus(total(parts.map((p) => p.home)), withheld)) },
  ];
}

/** Money given back, in home currency: what it is worth leaves the account, and stands on what the customer owes. */
export function refundSides(worth: Minor, moneyAccount: string, chart: readonly Account[]): readonly Side[] {
  return [
    { account: accountFor(chart, 'receivables'), amount: worth },
    { account: moneyAccount, amount: negated(worth) },
  ];
}
