/**
 * Exact fractions of whole numbers. The engine needs quotients such as 40 ÷ 1.09 kept exact until
 * a named rounding, which no decimal of fixed precision can promise at a tie.
 * Fractions are not reduced: chains in the engine are short, and reducing costs more than it saves.
 */
export interface Ratio {
  readonly n: bigint;
  /** Always positive. */
  readonly d: bigint;
}

export const ZERO: Ratio = { n: 0n, d: 1n };
export const ONE: Ratio = { n: 1n, d: 1n };

export function whole(n: bigint): Ratio {
  return { n, d: 1n };
}

export function add(a: Ratio, b: Ratio): Ratio {
  if (a.d === b.d) return { n: a.n + b.n, d: a.d };
  // A sum of sums has denominators that hold each other: multiplied they would double in length with each.
  if (b.d % a.d === 0n) return { n: a.n * (b.d / a.d) + b.n, d: b.d };
  if (a.d % b.d === 0n) return { n: a.n + b.n * (a.d / b.d), d: a.d };
  return { n: a.n * b.d + b.n * a.d, d: a.d * b.d };
}

export function subtract(a: Ratio, b: Ratio): Ratio {
  return add(a, { n: -b.n, d: b.d });
}

export function multiply(a: Ratio, b: Ratio): Ratio {
  return { n: a.n * b.n, d: a.d * b.d };
}

/** @throws RangeError when `b` is zero; callers validate divisors when they read input. */
export function divide(a: Ratio, b: Ratio): Ratio {
  if (b.n === 0n) throw new RangeError('division by zero');
  return b.n < 0n ? { n: -a.n * b.d, d: a.d * -b.n } : { n: a.n * b.d, d: a.d * b.n };
}

export function sumRatios(ratios: readonly Ratio[]): Ratio {
  return ratios.reduce(add, ZERO);
}

/** Below zero when `a` is the smaller one, 0 when both are the same, above zero else. */
export function compare(a: Ratio, b: Ratio): number {
  const difference = a.n * b.d - b.n * a.d;
  return difference < 0n ? -1 : difference > 0n ? 1 : 0;
}
