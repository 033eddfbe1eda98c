import { bareNumber, taxNumberFault } from '@/core/tax/taxNumber';

/** What the registry of tax numbers says of one. */
export type RegistryAnswer =
  | { readonly result: 'valid' | 'invalid'; readonly reference: string }
  | { readonly result: 'unreachable' };

/**
 * A simulated registry of tax numbers; it knows nobody. Scripted by the number itself so that
 * demos and tests are repeatable: digits that end in 99 find the registry down, a number whose form
 * or check digits are wrong is invalid, as is one whose digits end in 00; all others are valid.
 */
export function askRegistry(country: string, number: string): RegistryAnswer {
  const bare = bareNumber(number);
  const digits = bare.replace(/\D/g, '');
  if (digits.endsWith('99')) return { result: 'unreachable' };
  const wrong = digits === '' || taxNumberFault(country, bare) !== null || digits.endsWith('00');
  return { result: wrong ? 'invalid' : 'valid', reference: `SIM-${country}-${bare.slice(-6)}` };
}
