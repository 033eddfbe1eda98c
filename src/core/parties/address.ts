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

/** The address as lines for a letter, the country last, by the name that `countryName` gives its code. */
export function addressLines(
  { street, city, region, postalCode, country }: Address,
  countryName: (code: string) => string,
): string[] {
  const town = [postalCode, city].filter(Boolean).join(' ');
  return [...street.split('\n'), town, region, country && countryName(country)]
    .map((line) => line.trim())
    .filter(Boolean);
}
