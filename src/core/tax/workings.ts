import { type Decimal, ratioOf } from '@/core/kernel/decimal';
import { type Minor, minor, negated } from '@/core/kernel/money';
import { showMoney, showNumber, showPrice } from '@/core/kernel/show';
import type { CalcInput, CalcResult } from './calcTypes';

/** One step of how a figure came about: words, and the figure they lead to. */
export interface WorkingStep {
  readonly words: string;
  readonly amount: Minor | null;
  /** `sum` closes the steps before it; `aside` stands apart in soft ink. */
  readonly tone: 'step' | 'sum' | 'aside';
}

const step = (words: string, amount: Minor | null, tone: WorkingStep['tone'] = 'step'): WorkingStep => ({
  words,
  amount,
  tone,
});

/** Words for a component of a code, by its id. */
export type NameOf = (componentId: string) => string;

/** `lines 1, 2, 5` or, when there are many, `12 lines`. */
function nameLines(positions: readonly number[]): string {
  if (positions.length > 6) return `${positions.length} lines`;
  return `${positions.length === 1 ? 'line' : 'lines'} ${positions.join(', ')}`;
}

/**
 * How the figures of one line came about: extension, discount, value, the tax of its group and its
 * share of it. Empty when the line is not part of the result.
 */
export function explainLine(
  input: CalcInput,
  result: CalcResult,
  lineId: string,
  nameOf: NameOf = (id) => id,
): readonly WorkingStep[] {
  const at = input.lines.findIndex((line) => line.id === lineId);
  const line = input.lines[at];
  const figures = result.lines[at];
  if (line === undefined || figures === undefined) return [];
  const { currency, priceMode } = input;
  const steps: WorkingStep[] = [
    step(`${showNumber(line.quantity)} × ${showPrice(line.unitPrice, currency)}`, figures.extension),
  ];
  if (line.discount !== undefined) {
    const words = 'percent' in line.discount ? `discount ${showNumber(line.discount.percent)} %` : 'discount';
    steps.push(step(words, negated(figures.discount)));
  }
  steps.push(step(priceMode === 'net' ? 'net' : 'with tax', figures.value, 'sum'));
  steps.push(...explainGroup(input, result, line.tax, nameOf), step('this line’s share', figures.taxAmount, 'aside'));
  if (priceMode === 'gross') steps.push(step('net', figures.net, 'aside'));
  return steps;
}

/** How the tax of one code came about: rate × base, or what a price with tax inside holds. */
export function explainGroup(
  input: CalcInput,
  result: CalcResult,
  code: string,
  nameOf: NameOf = (id) => id,
): readonly WorkingStep[] {
  const group = result.groups.find((g) => g.tax === code);
  if (group === undefined) return [];
  const { currency, priceMode } = input;
  const positions = input.lines.flatMap((line, i) => (line.tax === code ? [i + 1] : []));
  const value = showMoney(priceMode === 'net' ? group.net : group.gross, currency);
  const components = input.taxes[code]?.components ?? [];
  const where = `(${nameLines(positions)})`;
  const steps = components.map((component, i) => {
    const amount = group.components[i]?.amount ?? minor(0n);
    const named = components.length > 1 ? `${nameOf(component.id)} ` : '';
    if (component.perUnit !== undefined)
      return step(`${named}${showPrice(component.perUnit, currency)} for each unit ${where}`, amount);
    const rate = component.rate ?? ('0' as Decimal);
    const held = ratioOf(rate).n !== 0n && priceMode === 'gross';
    const on = component.compound === true ? ' and the taxes before it' : '';
    return step(
      held
        ? `${value} holds ${named}${showNumber(rate)} %${on} ${where}`
        : `${named}${showNumber(rate)} % of ${value}${on} ${where}`,
      amount,
    );
  });
  if (components.length < 2) return steps;
  const families = new Set(components.map((component) => component.family ?? component.id));
  const how = families.size === 1 ? 'rounded together, then split' : 'each rounded on its own';
  return [...steps, step(`tax, ${how}`, group.taxAmount, 'sum')];
}
