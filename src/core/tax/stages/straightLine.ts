import type { Currency } from '@/core/kernel/currency';
import { ratioOf } from '@/core/kernel/decimal';
import { inMinorUnits } from '@/core/kernel/money';
import { add, divide, multiply, ONE, type Ratio, subtract, sumRatios, whole, ZERO } from '@/core/kernel/ratio';
import type { Component, PriceMode } from '../calcTypes';

/** A component's tax as a straight line in the base: tax = slope × base + constant (minor units). */
export interface StraightLine {
  readonly slope: Ratio;
  readonly constant: Ratio;
}

const HUNDRED = whole(100n);

/** Stage 5: the straight lines of a code's components for a quantity, in order. */
export function straightLines(
  components: readonly Component[],
  quantity: Ratio,
  currency: Currency,
): readonly StraightLine[] {
  let slopeBefore = ZERO;
  let constantBefore = ZERO;
  return components.map((component) => {
    let line: StraightLine;
    if (component.perUnit !== undefined) {
      line = { slope: ZERO, constant: inMinorUnits(multiply(ratioOf(component.perUnit), quantity), currency) };
    } else {
      const rate = component.rate === undefined ? ZERO : divide(ratioOf(component.rate), HUNDRED);
      line = component.compound
        ? { slope: multiply(rate, add(ONE, slopeBefore)), constant: multiply(rate, constantBefore) }
        : { slope: rate, constant: ZERO };
    }
    slopeBefore = add(slopeBefore, line.slope);
    constantBefore = add(constantBefore, line.constant);
    return line;
  });
}

/** Stage 6: the base a value holds: the value itself, or with the tax taken out, exact. */
export function baseOf(value: bigint, lines: readonly StraightLine[], mode: PriceMode): Ratio {
  if (mode === 'net') return whole(value);
  const constants = sumRatios(lines.map((line) => line.constant));
  const slopes = sumRatios(lines.map((line) => line.slope));
  return divide(subtract(whole(value), constants), add(ONE, slopes));
}

/** Each component's exact tax on a base, in minor units. */
export function exactTaxes(base: Ratio, lines: readonly StraightLine[]): readonly Ratio[] {
  return lines.map((line) => add(multiply(line.slope, base), line.constant));
}
