import type { Currency } from '@/core/kernel/currency';
import { type Ratio, ZERO } from '@/core/kernel/ratio';
import type { Rounding } from '@/core/kernel/rounding';
import { share } from '@/core/kernel/share';
import type { CalcAdjustment, CalcLine } from '../calcTypes';
import { type LineValue, minorOf, percentOf } from './lineValue';

/** A line, or the part of an adjustment that falls on the group; allowances are negative. */
export interface Member {
  readonly kind: 'line' | CalcAdjustment['kind'];
  readonly id: string;
  readonly value: bigint;
  /** Zero for an adjustment: per-unit taxes do not look at it. */
  readonly quantity: Ratio;
}

/** Lines and adjustments of one tax code, lines first, both in document order. */
export interface Group {
  readonly tax: string;
  readonly members: readonly Member[];
}

interface Gathered {
  lines: Member[];
  adjustments: Member[];
  lineValue: bigint;
}

/**
 * Stages 2 to 4: groups by tax code in order of first appearance (codes that only an adjustment
 * uses come after), with adjustments valued on the line values alone and spread where they carry
 * no code.
 */
export function gatherGroups(
  lines: readonly CalcLine[],
  values: readonly LineValue[],
  adjustments: readonly CalcAdjustment[],
  currency: Currency,
  round: Rounding,
): readonly Group[] {
  const groups = new Map<string, Gathered>();
  const groupOf = (tax: string): Gathered => {
    let group = groups.get(tax);
    if (group === undefined) {
      group = { lines: [], adjustments: [], lineValue: 0n };
      groups.set(tax, group);
    }
    return group;
  };
  lines.forEach((line, i) => {
    const value = values[i];
    if (value === undefined) return;
    const group = groupOf(line.tax);
    group.lines.push({ kind: 'line', id: line.id, value: value.value, quantity: value.quantity });
    group.lineValue += value.value;
  });
  for (const adjustment of adjustments) if (adjustment.tax !== undefined) groupOf(adjustment.tax);

  const all = [...groups.values()];
  for (const adjustment of adjustments) {
    const targets = adjustment.tax === undefined ? all : [groupOf(adjustment.tax)];
    const { percent, amount } = adjustment;
    const pieces =
      percent !== undefined
        ? targets.map((group) => round(percentOf(percent, group.lineValue)))
        : amount !== undefined
          ? share(
              minorOf(amount, currency),
              targets.map((group) => group.lineValue),
            )
          : [];
    targets.forEach((group, i) => {
      const piece = pieces[i] ?? 0n;
      const value = adjustment.kind === 'allowance' ? -piece : piece;
      group.adjustments.push({ kind: adjustment.kind, id: adjustment.id, value, quantity: ZERO });
    });
  }
  return [...groups].map(([tax, group]) => ({ tax, members: [...group.lines, ...group.adjustments] }));
}
