import { minus, NOTHING, negated, total } from '@/core/kernel/money';
import { showMoney, showNumber } from '@/core/kernel/show';
import type { CalcInput, CalcResult } from './calcTypes';
import { explainGroup, type NameOf, type WorkingStep } from './workings';

/**
 * A figure below or beside the lines: `net`, `tax`, `payable`, `rounding`, `expected`, `home`;
 * `group:<code>`, `withheld:<id>`, `adjustment:<id>`, `account:<code>`.
 */
export type TotalKey = string;

const step = (words: string, amount: WorkingStep['amount'], tone: WorkingStep['tone'] = 'step'): WorkingStep => ({
  words,
  amount,
  tone,
});

/** Words for what a document calls its parts. */
export interface TotalNames {
  readonly component: NameOf;
  readonly tax: NameOf;
  readonly withholding: NameOf;
  readonly adjustment: NameOf;
  /** Income account of a line or adjustment, by its id. */
  readonly account: NameOf;
}

/** How a total came about. Empty when the document has no such figure. */
export function explainTotal(
  input: CalcInput,
  result: CalcResult,
  key: TotalKey,
  names: TotalNames,
): readonly WorkingStep[] {
  const { totals, groups, currency } = result;
  const [kind = '', id = ''] = key.split(/:(.*)/s);
  switch (kind) {
    case 'net':
      return [...groups.map((g) => step(`net of ${names.tax(g.tax)}`, g.net)), step('net of all', totals.net, 'sum')];
    case 'tax':
      return [...groups.map((g) => step(names.tax(g.tax), g.taxAmount)), step('tax in all', totals.taxAmount, 'sum')];
    case 'payable':
      return [
        step('net of all', totals.net),
        step('tax in all', totals.taxAmount),
        ...(totals.rounding === 0n ? [] : [step('rounded to the smallest coin', totals.rounding)]),
        ...(totals.prepaid === 0n ? [] : [step('paid already', negated(totals.prepaid))]),
        step('total', totals.payable, 'sum'),
      ];
    case 'rounding':
      return [
        step('before rounding', minus(totals.payable, totals.rounding)),
        step(`to the next ${input.rounding.cashStep ?? ''} ${currency}`, totals.rounding),
        step('total', totals.payable, 'sum'),
      ];
    case 'expected':
      return [
        step('total', totals.payable),
        ...result.withholding.map((part) => step(`less ${names.withholding(part.id)}`, negated(part.amount))),
        step('net of withholding', totals.expectedCash, 'sum'),
      ];
    case 'withheld': {
      const part = result.withholding.find((w) => w.id === id);
      const type = input.withholding.find((w) => w.id === id);
      if (part === undefined || type === undefined) return [];
      const base = { net: 'net', gross: 'total with tax', tax: 'tax' }[type.base];
      return [step(base, part.base), step(`${showNumber(type.rate)} % of it`, part.amount, 'sum')];
    }
    case 'group': {
      const group = groups.find((g) => g.tax === id);
      if (group === undefined) return [];
      return [
        ...explainGroup(input, result, id, names.component),
        step('net', group.net, 'aside'),
        step('with tax', group.gross, 'aside'),
      ];
    }
    case 'adjustment': {
      const parts = result.adjustments.filter((part) => part.id === id);
      return [
        ...parts.map((part) => step(`on ${names.tax(part.tax)}`, part.value)),
        step(names.adjustment(id), total(parts.map((part) => part.value)), 'sum'),
      ];
    }
    case 'account': {
      const lines = result.lines.filter((line) => names.account(line.id) === id);
      const parts = result.adjustments.filter((part) => names.account(part.id) === id);
      const nets = [...lines, ...parts].map((one) => one.net);
      return [
        ...lines.map((line) => step(`net of line ${result.lines.indexOf(line) + 1}`, line.net)),
        ...parts.map((part) => step(names.adjustment(part.id), part.net)),
        step('net', nets.length === 0 ? NOTHING : total(nets), 'sum'),
      ];
    }
    case 'home': {
      const { home } = result;
      if (home === undefined || input.home === undefined) return [];
      const perHome = showNumber(input.home.rate);
      const own = (amount: typeof home.gross) => showMoney(amount, currency);
      return [
        step(`total with tax ${own(totals.gross)} ${currency} × ${perHome}`, home.gross),
        ...home.groups.map((group) => {
          const tax = groups.find((g) => g.tax === group.tax)?.taxAmount ?? NOTHING;
          return step(`${names.tax(group.tax)} ${own(tax)} × rate`, group.taxAmount);
        }),
        step('net is what is left', home.net, 'sum'),
      ];
    }
    default:
      return [];
  }
}
