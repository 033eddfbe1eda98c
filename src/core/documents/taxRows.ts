import type { Decimal } from '@/core/kernel/decimal';
import { type Minor, total } from '@/core/kernel/money';
import { showNumber } from '@/core/kernel/show';
import type { Category, GroupResult } from '@/core/tax/calcTypes';
import type { FrozenTax } from './content';

/** What a customer reads as one tax: a tax by its own name, or the combined rate of a place. */
export interface NamedTax {
  /** Name of the tax, or of what it is combined to. */
  readonly name: string;
  /** Percent; empty where the name holds it already, and for an amount per unit. */
  readonly percent: Decimal | '';
  /** Empty where nothing is charged. */
  readonly family: string;
  readonly category: Category;
}

/** A row of a document's totals: a tax, the net it is charged on, and what it comes to. */
export interface TaxRow extends NamedTax {
  readonly code: string;
  readonly base: Minor;
  readonly amount: Minor;
}

/**
 * The taxes that a code charges, as customers read them: each with a line of its own (`CGST 9 %` beside `SGST 9 %`), but those
 * that a place rounds together as the one rate they are.
 */
export function namedTaxes({ name, category, components = [] }: FrozenTax): readonly NamedTax[] {
  const families = [...new Set(components.map(({ family }) => family))];
  if (families.length === 0) return [{ name, percent: '', family: '', category }];
  return families.map((family): NamedTax => {
    const own = components.filter((component) => component.family === family);
    const [first] = own;
    // Where relief was given its percent is zero, which says nothing of the tax.
    const alone = own.length === 1 && first !== undefined && first.relief === null;
    return alone
      ? { name: first.taxName, percent: first.percent, family, category }
      : { name, percent: '', family, category };
  });
}

/** The rows of a document's totals, in the order of its groups. */
export function taxRows(taxes: readonly FrozenTax[], groups: readonly GroupResult[]): readonly TaxRow[] {
  const byCode = new Map(taxes.map((tax) => [tax.code, tax]));
  return groups.flatMap(({ tax: code, net, taxAmount, components }): readonly TaxRow[] => {
    const tax = byCode.get(code);
    const named: readonly NamedTax[] =
      tax === undefined ? [{ name: code, percent: '', family: '', category: 'S' }] : namedTaxes(tax);
    if (named.length === 1) return named.map((one) => ({ ...one, code, base: net, amount: taxAmount }));
    return named.map((one) => {
      const own = components.filter(({ family }) => family === one.family);
      return { ...one, code, base: net, amount: total(own.map(({ amount }) => amount)) };
    });
  });
}

/** `VAT 23 %`, or what the tax is called alone. */
export function namedTaxWords({ name, percent }: Pick<NamedTax, 'name' | 'percent'>): string {
  return percent === '' ? name : `${name} ${showNumber(percent)} %`;
}

/** A code as it is read: `VAT 23 %`, `GST 5 % + QST 9.975 %`, or its own name where it charges nothing. */
export function taxLabel(tax: FrozenTax): string {
  return namedTaxes(tax).map(namedTaxWords).join(' + ');
}
