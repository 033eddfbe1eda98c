import { type Minor, NOTHING, negated, plus } from '@/core/kernel/money';
import { type Account, accountFor } from '../account';
import type { Side } from '../entry';
import type { TaxPosting } from './taxAccounts';

interface CodeTax {
  readonly code: string;
  readonly codeName: string;
  readonly tax: Minor;
}

/** Tax by code, in the order the codes come. */
function byCode(entries: readonly CodeTax[]): readonly CodeTax[] {
  const sums = new Map<string, CodeTax>();
  for (const { code, codeName, tax } of entries)
    sums.set(code, { code, codeName, tax: plus(sums.get(code)?.tax ?? NOTHING, tax) });
  return [...sums.values()];
}

/** Tax that falls due with a payment: from output tax not yet due to output tax, by code. */
export function releaseSides(
  entries: readonly CodeTax[],
  label: string,
  notYetDueAccount: string,
  { outputAccount, taxPeriodId }: TaxPosting,
): readonly Side[] {
  return byCode(entries).flatMap(({ code, codeName, tax }): readonly Side[] => {
    const text = `${label} ${codeName}`;
    return [
      { account: notYetDueAccount, amount: tax, text },
      { account: outputAccount, amount: negated(tax), text, taxPeriodId, taxCode: code },
    ];
  });
}

/** Relief: output tax of a bad debt, below zero in its entries, goes out of output tax and makes the bad debt cost less. */
export function reliefSides(
  entries: readonly CodeTax[],
  label: string,
  account: string,
  { outputAccount, taxPeriodId }: TaxPosting,
): readonly Side[] {
  return byCode(entries).flatMap(({ code, codeName, tax }): readonly Side[] => [
    { account, amount: tax, text: label },
    { account: outputAccount, amount: negated(tax), text: `${label} ${codeName}`, taxPeriodId, taxCode: code },
  ]);
}

/** Tax that will not fall due any more: it makes what a bad debt costs less. */
export function givenUpSides(
  entries: readonly CodeTax[],
  label: string,
  notYetDueAccount: string,
  account: string,
): readonly Side[] {
  return byCode(entries).flatMap(({ codeName, tax }): readonly Side[] => [
    { account: notYetDueAccount, amount: tax, text: `${label} ${codeName}` },
    { account, amount: negated(tax), text: label },
  ]);
}

/** Closes what stands on receivables to another account. */
export function closingSides(home: Minor, account: string, text: string, chart: readonly Account[]): readonly Side[] {
  return [
    { account, amount: home, text },
    { account: accountFor(chart, 'receivables'), amount: negated(home), text },
  ];
}

/** Moves what settling left over in home currency from receivables to exchange differences. */
export function differenceSides(difference: Minor, text: string, chart: readonly Account[]): readonly Side[] {
  return difference === NOTHING ? [] : closingSides(difference, accountFor(chart, 'exchange'), text, chart);
}

/** Sides as one that say the same of one account. */
export function mergedSides(sides: readonly Side[]): readonly Side[] {
  const merged = new Map<string, Side>();
  for (const side of sides) {
    const key = [side.account, side.text, side.taxPeriodId, side.taxCode].join('|');
    const before = merged.get(key);
    merged.set(key, before === undefined ? side : { ...before, amount: plus(before.amount, side.amount) });
  }
  return [...merged.values()];
}
