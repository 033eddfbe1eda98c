import type { Ratio } from './ratio';

declare const brand: unique symbol;

/** An exact decimal written as text: `-12.50`, `0.9213`. No exponent, no thousands mark. */
export type Decimal = string & { readonly [brand]: 'decimal' };

const DECIMAL = /^-?(?:\d{1,24})(?:\.\d{1,18})?$/;

/** True for an optional minus, up to 24 digits and up to 18 decimals. */
export function isDecimal(text: unknown): text is Decimal {
  return typeof text === 'string' && DECIMAL.test(text);
}

/** @throws RangeError for text that `isDecimal` refuses; for literals and values already checked. */
export function decimal(text: string): Decimal {
  if (!isDecimal(text)) throw new RangeError(`not a decimal: ${text}`);
  return text;
}

/** Number of digits behind the point: `1.50` → 2. */
export function decimalsOf(value: Decimal): number {
  const point = value.indexOf('.');
  return point < 0 ? 0 : value.length - point - 1;
}

const POWERS: bigint[] = [];

/** 10 to the power of `exponent`, remembered. */
export function tenTo(exponent: number): bigint {
  POWERS[exponent] ??= 10n ** BigInt(exponent);
  return POWERS[exponent];
}

/** The exact fraction a decimal stands for: `0.23` → 23/100. */
export function ratioOf(value: Decimal): Ratio {
  const point = value.indexOf('.');
  if (point < 0) return { n: BigInt(value), d: 1n };
  const digits = value.slice(0, point) + value.slice(point + 1);
  return { n: BigInt(digits), d: tenTo(value.length - point - 1) };
}

/** Writes `units` of 10^-decimals as a decimal: (1234, 2) → `12.34`; (-5, 2) → `-0.05`. */
export function writeUnits(units: bigint, decimals: number): Decimal {
  const sign = units < 0n ? '-' : '';
  const digits = (units < 0n ? -units : units).toString().padStart(decimals + 1, '0');
  if (decimals === 0) return `${sign}${digits}` as Decimal;
  return `${sign}${digits.slice(0, -decimals)}.${digits.slice(-decimals)}` as Decimal;
}

const MOST_DECIMALS = 18;

/**
 * A fraction as a decimal with up to 18 decimals, zeros at the end dropped.
 * @throws RangeError when it has more; for sums and products of decimals that stay short.
 */
export function decimalOf({ n, d }: Ratio): Decimal {
  const units = n * tenTo(MOST_DECIMALS);
  if (units % d !== 0n) throw new RangeError(`not a decimal of ${MOST_DECIMALS} places: ${n}/${d}`);
  return trimmed(writeUnits(units / d, MOST_DECIMALS));
}

/** Drops zeros at the end that say nothing: `13.500` → `13.5`, `4.0` → `4`. */
export function trimmed(value: Decimal): Decimal {
  return (value.includes('.') ? value.replace(/\.?0+$/, '') : value) as Decimal;
}

/**
 * Reads a number as a person types it: blanks dropped, a true minus is a minus. With both marks
 * present the later one is the decimal mark (`1.234,50` and `1,234.50` are 1234.50). A lone comma is
 * a thousands mark before exactly three last digits (`1,234`), else a decimal mark (`12,5`).
 * Null when it is not a number.
 */
export function readTypedDecimal(text: string): Decimal | null {
  let t = text.replace(/[\s\u00a0\u202f]/g, '').replace('\u2212', '-');
  const commaIsDecimal = t.includes('.') ? t.lastIndexOf(',') > t.lastIndexOf('.') : !/^-?\d{1,3}(,\d{3})+$/.test(t);
  t = commaIsDecimal ? t.replaceAll('.', '').replace(',', '.') : t.replaceAll(',', '');
  t = t.replace(/^(-?)\./, '$10.').replace(/\.$/, '');
  return isDecimal(t) ? t : null;
}

/** Countries whose people write a point before decimals and a comma between thousands; most others do it the other way. */
const POINT_COUNTRIES = new Set(
  'AU BD BN BW CA CN DO EG ET GB GH GT HK HN IE IL IN JM JP KE KR LK MM MO MT MW MX MY NA NG NI NP NZ PA PE PH PK PR RW SA SG SV TH TT TW TZ UG US XI ZM ZW CH LI'.split(
    ' ',
  ),
);

/**
 * True for a figure that the people of a country may mean in two ways, as `1.200` and `1,200` in Germany: one and two
 * tenths, or twelve hundred. Where the point stands before decimals neither is in doubt.
 */
export function isAmbiguousIn(country: string, typed: string): boolean {
  return !POINT_COUNTRIES.has(country) && /^-?[1-9]\d{0,2}[.,]\d{3}$/.test(typed.trim());
}
