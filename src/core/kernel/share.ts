import type { Ratio } from './ratio';

/**
 * Splits `total` minor units over `weights` so that the parts add up to it exactly (largest
 * remainder). Each part starts as total·w ÷ Σw cut toward zero; the units left over go one each to
 * the largest remainders (to the most negative ones when units must be taken back), ties to the
 * earlier part. When the weights add up to zero the first part takes everything.
 *
 * share(5, [60, 25, 15]) = [3, 1, 1]. Mirrors: share(−t, w) = −share(t, w).
 */
export function share(total: bigint, weights: readonly bigint[]): bigint[] {
  if (weights.length === 0) return [];
  let sum = 0n;
  for (const weight of weights) sum += weight;
  if (sum === 0n) return weights.map((_, i) => (i === 0 ? total : 0n));
  // With a positive divisor the remainder's sign is the sign of the exact part.
  const sign = sum < 0n ? -1n : 1n;
  const divisor = sum * sign;
  const parts: bigint[] = [];
  const remainders: bigint[] = [];
  let left = total;
  for (const weight of weights) {
    const exact = total * weight * sign;
    const part = exact / divisor;
    parts.push(part);
    remainders.push(exact - part * divisor);
    left -= part;
  }
  if (left === 0n) return parts;
  const unit = left < 0n ? -1n : 1n;
  const order = remainders
    .map((remainder, index) => ({ remainder: remainder * unit, index }))
    .sort((a, b) => (a.remainder === b.remainder ? a.index - b.index : a.remainder > b.remainder ? -1 : 1));
  for (let i = 0; left !== 0n; i++, left -= unit) {
    const taker = order[i];
    if (taker === undefined) throw new RangeError('more units left over than parts');
    parts[taker.index] = (parts[taker.index] ?? 0n) + unit;
  }
  return parts;
}

/** `share` over exact fractions, brought to one denominator first. */
export function shareByRatios(total: bigint, weights: readonly Ratio[]): bigint[] {
  const first = weights[0]?.d;
  if (weights.every((w) => w.d === first))
    return share(
      total,
      weights.map((w) => w.n),
    );
  const denominator = weights.reduce((product, w) => product * w.d, 1n);
  return share(
    total,
    weights.map((w) => (w.n * denominator) / w.d),
  );
}
