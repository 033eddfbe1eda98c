import { type Currency, exponentOf } from '@/core/kernel/currency';
import { type Decimal, decimalOf, ratioOf, tenTo, writeUnits } from '@/core/kernel/decimal';
import { inMinorUnits, type Minor } from '@/core/kernel/money';
import { add, divide, multiply, ONE, type Ratio, subtract, sumRatios, whole } from '@/core/kernel/ratio';
import { halfUp } from '@/core/kernel/rounding';
import type { Component, Discount, PriceMode } from './calcTypes';
import { PRICE_DECIMALS } from './price';
import { straightLines } from './stages/straightLine';

/** Slope and constant of all taxes together on one value, in minor units. */
function together(components: readonly Component[], quantity: Ratio, currency: Currency) {
  const lines = straightLines(components, quantity, currency);
  return {
    slope: sumRatios(lines.map((line) => line.slope)),
    constant: sumRatios(lines.map((line) => line.constant)),
  };
}

/** A price in currency units rounded to the ten decimals that prices may have, zeros at the end dropped. */
function asPrice(value: Ratio): Decimal {
  const units = halfUp(multiply(value, whole(tenTo(PRICE_DECIMALS))));
  return decimalOf({ n: units, d: tenTo(PRICE_DECIMALS) });
}

/**
 * The price of one unit in the other mode. With tax added it is a shop price, rounded to the minor
 * unit: 62.00 at 13.5 % is 70.37. With tax taken out it keeps ten decimals: 70.37 is 62.
 */
export function priceInMode(
  price: Decimal,
  from: PriceMode,
  to: PriceMode,
  components: readonly Component[],
  currency: Currency,
): Decimal {
  if (from === to) return price;
  const { slope, constant } = together(components, ONE, currency);
  const exact = inMinorUnits(ratioOf(price), currency);
  const factor = add(ONE, slope);
  if (to === 'gross') return writeUnits(halfUp(add(multiply(exact, factor), constant)), exponentOf(currency));
  return asPrice(divide(divide(subtract(exact, constant), factor), whole(tenTo(exponentOf(currency)))));
}

const NEAR = [0n, 1n, -1n, 2n, -2n];

/** Tax that a value alone would carry (net mode) or hold (gross mode), rounded. */
function taxOf(value: bigint, mode: PriceMode, slope: Ratio, constant: Ratio): bigint {
  const base = mode === 'net' ? whole(value) : divide(subtract(whole(value), constant), add(ONE, slope));
  return halfUp(add(multiply(base, slope), constant));
}

/** What of a line is known when its price is looked for. */
export type WantedFigure = 'net' | 'tax' | 'gross';

/**
 * The line value (net in net mode, with tax in gross mode) whose own net, tax or gross is the wanted
 * amount. Null when no value in minor units gives it, as with a tax of 0.01 at 250 %.
 */
export function valueFor(
  wanted: WantedFigure,
  amount: Minor,
  mode: PriceMode,
  quantity: Decimal,
  components: readonly Component[],
  currency: Currency,
): bigint | null {
  const { slope, constant } = together(components, ratioOf(quantity), currency);
  if ((wanted === 'net' && mode === 'net') || (wanted === 'gross' && mode === 'gross')) return amount;
  if (wanted === 'tax' && slope.n === 0n) return null;
  const factor = add(ONE, slope);
  const base =
    wanted === 'tax'
      ? divide(subtract(whole(amount), constant), slope)
      : wanted === 'net'
        ? whole(amount)
        : divide(subtract(whole(amount), constant), factor);
  const about = halfUp(mode === 'net' ? base : add(multiply(base, factor), constant));
  for (const by of NEAR) {
    const value = about + by;
    const tax = taxOf(value, mode, slope, constant);
    const found = wanted === 'tax' ? tax : mode === 'net' ? value + tax : value - tax;
    if (found === amount) return value;
  }
  return null;
}

/**
 * The unit price whose line value, after its discount, is `value` exactly. Null when there is none:
 * a quantity of zero, a discount of 100 %, or so many units that ten decimals can't hit it.
 */
export function priceFor(
  value: bigint,
  quantity: Decimal,
  discount: Discount | undefined,
  currency: Currency,
): Decimal | null {
  const q = ratioOf(quantity);
  if (q.n === 0n) return null;
  for (const extension of extensionsFor(value, discount, currency)) {
    const price = asPrice(divide(whole(extension), multiply(q, whole(tenTo(exponentOf(currency))))));
    if (halfUp(inMinorUnits(multiply(ratioOf(price), q), currency)) === extension) return price;
  }
  return null;
}

/** Extensions that leave `value` once the discount is taken. */
function extensionsFor(value: bigint, discount: Discount | undefined, currency: Currency): readonly bigint[] {
  if (discount === undefined) return [value];
  if ('amount' in discount) return [value + halfUp(inMinorUnits(ratioOf(discount.amount), currency))];
  const rate = divide(ratioOf(discount.percent), whole(100n));
  const rest = subtract(ONE, rate);
  if (rest.n === 0n) return [];
  const about = halfUp(divide(whole(value), rest));
  return NEAR.map((by) => about + by).filter((e) => e - halfUp(multiply(whole(e), rate)) === value);
}
