import { COUNTRIES } from '@/core/kernel/country';
import { CURRENCIES } from '@/core/kernel/currency';
import { regionsOf } from '@/core/kernel/region';
import type { Category } from '@/core/tax/calcTypes';
import type { Jurisdiction } from '@/core/tax/jurisdiction';
import type { Frequency } from '@/core/tax/registration';
import { numberName } from '@/core/tax/taxNumber';
import { today } from '../shell/book';

type Choices = readonly (readonly [string, string])[];

const countryNames = new Intl.DisplayNames(['en'], { type: 'region' });

/** A country by its name on screen. */
export const countryName = (code: string): string => (code === '' ? '' : (countryNames.of(code) ?? code));

/** The name of a tax number of a country, as a label. */
export function numberLabel(country: string): string {
  const name = numberName(country, today());
  if (typeof name === 'object') return name.own;
  return name === 'vat' ? 'VAT number' : 'Tax registration number';
}

/** States and provinces of a country to choose from; `held` stays to be chosen where it is none of them. Empty where regions are free. */
export function regionChoices(country: string, held: string): Choices {
  const regions = regionsOf(country);
  if (regions.length === 0) return [];
  const others = held === '' || regions.some(([code]) => code === held) ? [] : [[held, held] as const];
  return [['', 'choose…'] as const, ...others, ...regions.toSorted((a, b) => a[1].localeCompare(b[1], 'en'))];
}

/** Countries by name. */
export const COUNTRY_CHOICES: Choices = [
  ['', 'choose…'] as const,
  ...COUNTRIES.map((code) => [code, countryName(code)] as const).sort((a, b) => a[1].localeCompare(b[1], 'en')),
];

export const CURRENCY_CHOICES: Choices = CURRENCIES.map((code) => [code, code] as const);

export const FREQUENCY_CHOICES: readonly (readonly [Frequency, string])[] = [
  ['monthly', 'every month'],
  ['two-monthly', 'every two months'],
  ['quarterly', 'every quarter'],
  ['yearly', 'every year'],
];

/** EN 16931 categories in plain words. */
export const CATEGORY_CHOICES: readonly (readonly [Category, string])[] = [
  ['S', 'S, taxed at a rate'],
  ['Z', 'Z, zero rate'],
  ['E', 'E, exempt'],
  ['AE', 'AE, reverse charge'],
  ['K', 'K, intra-community supply'],
  ['G', 'G, export'],
  ['O', 'O, outside the scope of tax'],
  ['L', 'L, Canary Islands tax'],
  ['M', 'M, Ceuta and Melilla tax'],
];

/** Jurisdictions in the order of their tree, each indented below what it lies in. */
export function jurisdictionChoices(all: readonly Jurisdiction[]): Choices {
  return [
    ['', 'choose…'] as const,
    ...inTree(all).map(({ jurisdiction: j, depth }) => [j.id, `${'\u00a0'.repeat(2 * depth)}${j.name}`] as const),
  ];
}

/** Jurisdictions as a tree read from the top: countries by name, what lies in them below. */
export function inTree(
  all: readonly Jurisdiction[],
): readonly { readonly jurisdiction: Jurisdiction; readonly depth: number }[] {
  const known = new Set(all.map((j) => j.id));
  const below = new Map<string, Jurisdiction[]>();
  for (const j of all) {
    const parent = known.has(j.parentId) ? j.parentId : '';
    below.set(parent, [...(below.get(parent) ?? []), j]);
  }
  const walk = (parent: string, depth: number): { jurisdiction: Jurisdiction; depth: number }[] =>
    [...(below.get(parent) ?? [])]
      .sort((a, b) => a.name.localeCompare(b.name, 'en'))
      .flatMap((jurisdiction) => [{ jurisdiction, depth }, ...walk(jurisdiction.id, depth + 1)]);
  return walk('', 0);
}
