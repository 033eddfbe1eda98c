import type { Currency } from '@/core/kernel/currency';
import { type Ratio, sumRatios } from '@/core/kernel/ratio';
import type { Rounding } from '@/core/kernel/rounding';
import { share, shareByRatios } from '@/core/kernel/share';
import type { Component, PriceMode } from '../calcTypes';
import type { Member } from './groups';
import { baseOf, exactTaxes, straightLines } from './straightLine';

/** Components that are rounded together, by their positions in the code. */
export interface Family {
  readonly name: string;
  readonly positions: readonly number[];
  /** Made of per-unit components only: shared over lines by quantity. */
  readonly perUnitOnly: boolean;
}

/** The families of a code, in order of first appearance. */
export function familiesOf(components: readonly Component[]): readonly Family[] {
  const positions = new Map<string, number[]>();
  components.forEach((component, i) => {
    const name = component.family ?? component.id;
    const known = positions.get(name);
    if (known === undefined) positions.set(name, [i]);
    else known.push(i);
  });
  return [...positions].map(([name, list]) => ({
    name,
    positions: list,
    perUnitOnly: list.every((i) => components[i]?.perUnit !== undefined),
  }));
}

/** What one code charges: whole minor units by component and by member, adding up to the same. */
export interface GroupTax {
  readonly components: readonly bigint[];
  readonly families: readonly { readonly name: string; readonly amount: bigint }[];
  readonly members: readonly bigint[];
}

export interface TaxRules {
  readonly mode: PriceMode;
  readonly level: 'document' | 'line';
  readonly currency: Currency;
  readonly round: Rounding;
  /** An amount that replaces the family's own, when the bookkeeper gave one. */
  readonly overrideOf: (family: string) => Overridden | undefined;
}

/** A family's tax as it was given, and how it falls on its components where that was given too. */
export interface Overridden {
  readonly amount: bigint;
  readonly parts: readonly bigint[] | undefined;
}

/** Exact taxes by component for a value and a quantity. */
function taxesOn(value: bigint, quantity: Ratio, components: readonly Component[], rules: TaxRules): readonly Ratio[] {
  const lines = straightLines(components, quantity, rules.currency);
  return exactTaxes(baseOf(value, lines, rules.mode), lines);
}

const pick = (taxes: readonly Ratio[], family: Family): Ratio[] => family.positions.map((i) => taxes[i] as Ratio);

/**
 * Stages 7, 8 and 10: a family's tax rounded once for the group (or once for each member at level
 * `line`), replaced by an override, split over its components and over the members.
 */
export function taxGroup(members: readonly Member[], components: readonly Component[], rules: TaxRules): GroupTax {
  const families = familiesOf(components);
  const byComponent: bigint[] = components.map(() => 0n);
  const byMember: bigint[] = members.map(() => 0n);
  const amounts: { name: string; amount: bigint }[] = [];

  const value = members.reduce((sum, member) => sum + member.value, 0n);
  const quantity = sumRatios(members.map((member) => member.quantity));
  const groupTaxes = taxesOn(value, quantity, components, rules);
  const memberTaxes = rules.level === 'line' ? members.map((m) => taxesOn(m.value, m.quantity, components, rules)) : [];

  const addToComponents = (family: Family, amount: bigint, taxes: readonly Ratio[], given?: readonly bigint[]) => {
    (given ?? shareByRatios(amount, pick(taxes, family))).forEach((part, i) => {
      const position = family.positions[i] as number;
      byComponent[position] = (byComponent[position] ?? 0n) + part;
    });
  };
  const addToMember = (i: number, part: bigint) => {
    byMember[i] = (byMember[i] ?? 0n) + part;
  };

  for (const family of families) {
    const override = rules.overrideOf(family.name);
    if (rules.level === 'line' && override === undefined) {
      let sum = 0n;
      memberTaxes.forEach((taxes, i) => {
        const amount = rules.round(sumRatios(pick(taxes, family)));
        addToComponents(family, amount, taxes);
        addToMember(i, amount);
        sum += amount;
      });
      amounts.push({ name: family.name, amount: sum });
    } else {
      const amount = override?.amount ?? rules.round(sumRatios(pick(groupTaxes, family)));
      addToComponents(family, amount, groupTaxes, override?.parts);
      const parts = family.perUnitOnly
        ? shareByRatios(
            amount,
            members.map((m) => m.quantity),
          )
        : share(
            amount,
            members.map((m) => m.value),
          );
      parts.forEach((part, i) => {
        addToMember(i, part);
      });
      amounts.push({ name: family.name, amount });
    }
  }
  return { components: byComponent, families: amounts, members: byMember };
}
