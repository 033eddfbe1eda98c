import { type Currency, exponentOf } from './currency';
import { type Decimal, decimalsOf, isDecimal, ratioOf, tenTo, trimmed, writeUnits } from './decimal';
import type { Ratio } from './ratio';

declare const brand: unique symbol;

/** A whole number of minor units of some currency: 1234n is 12.34 EUR, 1234 JPY, 1.234 KWD. */
export type Minor = bigint & { readonly [brand]: 'minor' };

export const NOTHING = 0n as Minor;

export function minor(units: bigint): Minor {
  return units as Minor;
}

export function plus(a: Minor, b: Minor): Minor {
  return (a + b) as Minor;
}

export function minus(a: Minor, b: Minor): Minor {
  return (a - b) as Minor;
}

export function negated(a: Minor): Minor {
  return -a as Minor;
}

export function total(amounts: Iterable<Minor>): Minor {
  let sum = 0n;
  for (const amount of amounts) sum += amount;
  return sum as Minor;
}

/** The amount as a decimal with the currency's own number of decimals: 1234n EUR → `12.34`. */
export function writeMoney(amount: Minor, currency: Currency): Decimal {
  return writeUnits(amount, exponentOf(currency));
}

/**
 * Reads a decimal as minor units. Null when it has digits below the minor unit (`1.005` EUR), since
 * cutting them would be a silent rounding.
 */
export function readMoney(value: Decimal, currency: Currency): Minor | null {
  const exponent = exponentOf(currency);
  const short = decimalsOf(value) > exponent ? trimmed(value) : value;
  const decimals = decimalsOf(short);
  if (decimals > exponent || !isDecimal(short)) return null;
  const { n } = ratioOf(short);
  return (n * tenTo(exponent - decimals)) as Minor;
}

/** An exact value in currency units as an exact number of its minor units. */
export function inMinorUnits(value: Ratio, currency: Currency): Ratio {
  return { n: value.n * tenTo(exponentOf(currency)), d: value.d };
}
