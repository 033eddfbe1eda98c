import { exponentOf } from '@/core/kernel/currency';
import { type Decimal, ratioOf, readTypedDecimal, tenTo, writeUnits } from '@/core/kernel/decimal';
import { divide, multiply } from '@/core/kernel/ratio';
import { halfUp } from '@/core/kernel/rounding';
import type { Draft } from './draft';
import { currencyOf } from './readLine';

/** What becomes of prices when a draft's currency changes. */
export type KeepPrices = 'converted' | 'as-typed';

/** Units of the old and the new currency for one home unit. */
export interface CurrencyRates {
  readonly from: Decimal;
  readonly to: Decimal;
}

/** Prices and amounts of a draft, by which they are told to be untouched since they were converted. */
type Figures = Pick<Draft, 'lines' | 'adjustments'>;

/** What a draft said in a currency before it was converted into another. */
export interface LeftCurrency {
  readonly currency: string;
  readonly before: Figures;
  readonly after: Figures;
}

/** True when a draft has a price that a change of currency would touch. */
export function hasPrices(draft: Draft): boolean {
  return draft.lines.some((line) => line.price.trim() !== '') || draft.adjustments.some((a) => a.amount.trim() !== '');
}

/**
 * The draft in another currency (empty for the home currency). Prices, amounts of discounts and of
 * charges are converted and rounded to the currency's decimals, or stay as typed; percentages stay.
 * Typed taxes are dropped, as they belong to the old amounts. A figure that was converted from `to`
 * before and was not touched since gets back what was typed.
 */
export function switchCurrency(
  draft: Draft,
  to: string,
  keep: KeepPrices,
  rates: CurrencyRates,
  homeCurrency: Draft['currency'],
  left: LeftCurrency | null,
): Draft {
  const moved: Draft = { ...draft, currency: to, perHome: '', overrides: [] };
  if (keep === 'as-typed') return moved;
  const decimals = exponentOf(currencyOf(moved, homeCurrency as Parameters<typeof currencyOf>[1]));
  const convert = (text: string): string => {
    const read = readTypedDecimal(text);
    if (read === null) return text;
    const { n, d } = multiply(ratioOf(read), divide(ratioOf(rates.to), ratioOf(rates.from)));
    return writeUnits(halfUp({ n: n * tenTo(decimals), d }), decimals);
  };
  const known = left !== null && left.currency === to ? left : null;
  return {
    ...moved,
    lines: draft.lines.map((line) => {
      const was = known?.before.lines.find(({ id }) => id === line.id);
      const became = known?.after.lines.find(({ id }) => id === line.id);
      if (was !== undefined && became?.price === line.price && became.discount === line.discount)
        return { ...line, price: was.price, discount: was.discount, priceFrom: was.priceFrom };
      return { ...line, price: convert(line.price), discount: convert(line.discount), priceFrom: '' };
    }),
    adjustments: draft.adjustments.map((adjustment) => {
      const was = known?.before.adjustments.find(({ id }) => id === adjustment.id);
      const became = known?.after.adjustments.find(({ id }) => id === adjustment.id);
      if (was !== undefined && became?.amount === adjustment.amount) return { ...adjustment, amount: was.amount };
      return { ...adjustment, amount: convert(adjustment.amount) };
    }),
  };
}
