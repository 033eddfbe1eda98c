import { type Minor, minor, minus, NOTHING, plus, total } from '@/core/kernel/money';
import { ROUNDINGS } from '@/core/kernel/rounding';
import type { AdjustmentResult, CalcInput, CalcResult, Figures, GroupResult, LineResult } from './calcTypes';
import { taxGroup } from './stages/familyTax';
import { gatherGroups } from './stages/groups';
import { minorOf, valueLine } from './stages/lineValue';
import { cashRounding, toHome, withhold } from './stages/settle';

/** A value and the tax on it (net mode) or in it (gross mode). */
function figuresOf(value: Minor, tax: Minor, mode: CalcInput['priceMode']): Figures {
  return mode === 'net'
    ? { net: value, taxAmount: tax, gross: plus(value, tax) }
    : { net: minus(value, tax), taxAmount: tax, gross: value };
}

/**
 * Computes a document: lines, groups by tax code, totals, withholding, home currency.
 * Pure and exact; rounds only where the stages say so. Input must come from a validating reader:
 * every code a line names is in `taxes`, amounts have no digits below the minor unit.
 *
 * 40.00 with 9 % inside → net 36.70, tax 3.30.
 */
export function calculate(input: CalcInput): CalcResult {
  const { currency, priceMode } = input;
  const round = ROUNDINGS[input.rounding.mode];
  const values = input.lines.map((line) => valueLine(line, currency, round));
  const grouped = gatherGroups(input.lines, values, input.adjustments, currency, round);

  const lineTax = new Map<string, Minor[]>();
  const adjustments: AdjustmentResult[] = [];
  const groups: GroupResult[] = [];
  const homeGroups: { tax: string; families: readonly { name: string; amount: bigint }[] }[] = [];

  for (const group of grouped) {
    const components = input.taxes[group.tax]?.components ?? [];
    const tax = taxGroup(group.members, components, {
      mode: priceMode,
      level: input.rounding.level,
      currency,
      round,
      overrideOf: (family) => {
        const found = input.overrides.find((o) => o.tax === group.tax && o.family === family);
        return (
          found && {
            amount: minorOf(found.amount, currency),
            parts: found.parts?.map((part) => minorOf(part, currency)),
          }
        );
      },
    });
    const lineTaxes: Minor[] = [];
    group.members.forEach((member, i) => {
      const amount = minor(tax.members[i] ?? 0n);
      if (member.kind === 'line') lineTaxes.push(amount);
      else {
        const value = minor(member.value);
        adjustments.push({
          id: member.id,
          kind: member.kind,
          tax: group.tax,
          value,
          ...figuresOf(value, amount, priceMode),
        });
      }
    });
    lineTax.set(group.tax, lineTaxes);
    const value = minor(group.members.reduce((sum, member) => sum + member.value, 0n));
    groups.push({
      tax: group.tax,
      ...figuresOf(value, minor(tax.components.reduce((sum, part) => sum + part, 0n)), priceMode),
      components: components.map((component, i) => ({
        id: component.id,
        family: component.family ?? component.id,
        amount: minor(tax.components[i] ?? 0n),
      })),
    });
    homeGroups.push({ tax: group.tax, families: tax.families });
  }

  const taken = new Map<string, number>();
  const lines = input.lines.map((line, i): LineResult => {
    const position = taken.get(line.tax) ?? 0;
    taken.set(line.tax, position + 1);
    const { extension, discount, value } = values[i] as (typeof values)[number];
    const tax = lineTax.get(line.tax)?.[position] ?? NOTHING;
    return { id: line.id, tax: line.tax, extension, discount, value, ...figuresOf(value, tax, priceMode) };
  });

  const totals: Figures = {
    net: total(groups.map((g) => g.net)),
    taxAmount: total(groups.map((g) => g.taxAmount)),
    gross: total(groups.map((g) => g.gross)),
  };
  const sumOf = (kind: 'allowance' | 'charge') => total(adjustments.filter((a) => a.kind === kind).map((a) => a.value));
  const prepaid = input.prepaid === undefined ? NOTHING : minorOf(input.prepaid, currency);
  const due = minus(totals.gross, prepaid);
  const rounding = cashRounding(due, input);
  const payable = plus(due, rounding);
  const withholding = input.withholding.map((w) => withhold(w, totals, currency, round));
  const withheld = total(withholding.map((w) => w.amount));

  return {
    currency,
    lines,
    adjustments,
    groups,
    totals: {
      ...totals,
      lineValue: total(lines.map((line) => line.value)),
      allowances: minus(NOTHING, sumOf('allowance')),
      charges: sumOf('charge'),
      rounding,
      prepaid,
      payable,
      withheld,
      expectedCash: minus(payable, withheld),
    },
    withholding,
    ...(input.home && {
      home: toHome(
        {
          gross: totals.gross,
          groups: homeGroups,
          lineNets: lines.map((line) => line.net),
          adjustmentNets: adjustments.map((a) => a.net),
        },
        currency,
        input.home,
        round,
      ),
    }),
  };
}
