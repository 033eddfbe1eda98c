import { isDecimal, ratioOf } from '@/core/kernel/decimal';
import { showPrice } from '@/core/kernel/show';
import type { CalcInput, Component } from '@/core/tax/calcTypes';
import { priceInMode } from '@/core/tax/convertPrice';
import type { Draft } from './draft';
import type { Preview } from './preview';

type Computed = Pick<Preview, 'input'>;

const charges = ({ rate, perUnit }: Component): boolean =>
  perUnit !== undefined || (rate !== undefined && ratioOf(rate).n !== 0n);

const componentsOf = ({ taxes }: CalcInput, tax: string): readonly Component[] => taxes[tax]?.components ?? [];

/**
 * Lines of a draft with tax-inclusive prices that charged a tax and charge none any more, at the same price: whether the
 * customer goes on paying that price, or the tax comes off it, only the bookkeeper knows.
 */
export function zeroRatedSince(before: Computed, after: Computed): readonly string[] {
  if (before.input.priceMode !== 'gross' || after.input.priceMode !== 'gross') return [];
  const was = new Map(before.input.lines.map((line) => [line.id, line]));
  return after.input.lines.flatMap((line) => {
    const then = was.get(line.id);
    if (then === undefined || then.unitPrice !== line.unitPrice || ratioOf(line.unitPrice).n === 0n) return [];
    const freed =
      componentsOf(before.input, then.tax).some(charges) && !componentsOf(after.input, line.tax).some(charges);
    return freed ? [line.id] : [];
  });
}

/** The draft with the tax that those lines held taken off their prices: 123.00 with 23 % becomes 100.00. */
export function takeTaxOff(draft: Draft, before: Computed, ids: readonly string[]): Draft {
  const { input } = before;
  const was = new Map(input.lines.map((line) => [line.id, line]));
  const lines = draft.lines.map((line) => {
    const then = was.get(line.id);
    if (then === undefined || !ids.includes(line.id) || !isDecimal(then.unitPrice)) return line;
    const price = priceInMode(then.unitPrice, 'gross', 'net', componentsOf(input, then.tax), input.currency);
    return {
      ...line,
      price,
      priceFrom: `${showPrice(then.unitPrice, input.currency)} with the tax that was taken off`,
    };
  });
  return { ...draft, lines };
}
