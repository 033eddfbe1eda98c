import type { Ratio } from './ratio';

/** How a value that lies exactly between two whole units is decided. */
export type RoundingMode = 'half-up' | 'half-even';

/** A rounding takes an exact fraction to a whole number of units. */
export type Rounding = (value: Ratio) => bigint;

/** To the nearest whole; a tie goes away from zero: 2.5 → 3, −2.5 → −3. */
export const halfUp: Rounding = ({ n, d }) => {
  const size = n < 0n ? -n : n;
  const rounded = (2n * size + d) / (2n * d);
  return n < 0n ? -rounded : rounded;
};

/** To the nearest whole; a tie goes to the even neighbour: 2.5 → 2, 3.5 → 4, −2.5 → −2. */
export const halfEven: Rounding = ({ n, d }) => {
  const size = n < 0n ? -n : n;
  const quotient = size / d;
  const twice = 2n * (size % d);
  const up = twice > d || (twice === d && quotient % 2n === 1n);
  const rounded = up ? quotient + 1n : quotient;
  return n < 0n ? -rounded : rounded;
};

export const ROUNDINGS: Readonly<Record<RoundingMode, Rounding>> = {
  'half-up': halfUp,
  'half-even': halfEven,
};
