import * as yup from 'yup';
import { countryCode, neededText, optionalText } from '@/core/kernel/validate';

/** A postal address. Optional parts are empty texts. */
export interface Address {
  /** Street and number; may hold several lines. */
  readonly street: string;
  readonly city: string;
  readonly region: string;
  readonly postalCode: string;
  /** ISO 3166-1 alpha-2. */
  readonly country: string;
}

export const addressSchema = yup.object({
  street: neededText('give-street-or-place'),
  city: neededText('give-town-or-city', 100),
  region: optionalText(100),
  postalCode: optionalText(20),
  country: countryCode(),
});

/** Where the postal code stands in the countries where it does not lead the town, by the Universal Postal Union's guides. */
const POSTAL_CODE: Readonly<Record<string, 'own-line' | 'after-town' | 'after-region'>> = {
  AU: 'after-region',
  CA: 'after-region',
  US: 'after-region',
  GB: 'own-line',
  IE: 'own-line',
  IN: 'after-town',
  NZ: 'after-town',
  SG: 'after-town',
  ZA: 'after-town',
};

function townLines({ city, region, postalCode, country }: Address): readonly string[] {
  const spaced = (...parts: readonly string[]) => parts.filter(Boolean).join(' ');
  switch (POSTAL_CODE[country]) {
    case 'own-line':
      return [city, region, postalCode];
    case 'after-town':
      return [spaced(city, postalCode), region];
    case 'after-region':
      return [spaced(country === 'US' && region !== '' ? `${city},` : city, region, postalCode)];
    default:
      return [spaced(postalCode, city), region];
  }
}

/** The address as lines for a letter, the country last, by the name that `countryName` gives its code. */
export function addressLines(address: Address, countryName: (code: string) => string): string[] {
  const { street, country } = address;
  return [...street.split('\n'), ...townLines(address), country && countryName(country)]
    .map((line) => line.trim())
    .filter(Boolean);
}
