import { COUNTRIES } from '@/core/kernel/country';
import { CURRENCIES } from '@/core/kernel/currency';
import type { Category } from '@/core/tax/calcTypes';
import type { Frequency } from '@/core/tax/registration';

type Choices = readonly (readonly [string, string])[];

const countryNames = new Intl.DisplayNames(['en'], { type: 'region' });

/** Countries by name. */
export const COUNTRY_CHOICES: Choices = [
  ['', 'choose…'] as const,
  ...COUNTRIES.map((code) => [code, countryNames.of(code) ?? code] as const).sort((a, b) =>
    a[1].localeCompare(b[1], 'en'),
  ),
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
