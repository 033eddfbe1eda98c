import { type Minor, NOTHING, negated, plus } from '@/core/kernel/money';
import { type Account, accountFor } from '../account';
import type { Side } from '../entry';
import type { TaxPosting } from './taxAccounts';

/** Money in, in home currency: what it is worth on its day goes to the account it came to, and stands to the customer’s credit. */
export function receiptSides(worth: Minor, moneyAccount: string, chart: readonly Account[]): readonly Side[] {
  return [
    { account: moneyAccount, amount: worth },
    { account: accountFor(chart, 'receivables'), amount: negated(worth) },
  ];
}

/** Tax that falls due with a payment: from output tax not yet due to output tax, by code. */
export function releaseSides(
  entries: readonly { readonly code: string; readonly codeName: string; readonly tax: Minor }[],
  label: string,
  notYetDueAccount: string,
  { outputAccount, taxPeriodId }: TaxPosting,
): readonly Side[] {
  const byCode = new Map<string, { name: string; tax: Minor }>();
  for (const { code, codeName, tax } of entries)
    byCode.set(code, { name: codeName, tax: plus(byCode.get(code)?.tax ?? NOTHING, tax) });
  return [...byCode].flatMap(([code, { name, tax }]): readonly Side[] => [
    { account: notYetDueAccount, amount: tax, text: `${label} ${name}` },
    { account: outputAccount, amount: negated(tax), text: `${label} ${name}`, taxPeriodId, taxCode: code },
  ]);
}

/** Moves what settling left over in home currency from receivables to exchange differences. */
export function differenceSides(difference: Minor, text: string, chart: readonly Account[]): readonly Side[] {
  if (difference === NOTHING) return [];
  return [
    { account: accountFor(chart, 'exchange'), amount: difference, text },
    { account: accountFor(chart, 'receivables'), amount: negated(difference), text },
  ];
}
