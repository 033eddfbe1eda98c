import * as yup from 'yup';
import type { IsoDate } from '@/core/kernel/date';
import { countryCode, dateText, neededText, optionalText } from '@/core/kernel/validate';
import type { PriceMode } from '@/core/tax/calcTypes';
import { CUSTOMER_KINDS, type CustomerKind, type NumberState } from '@/core/tax/decisionTable';
import { LANGUAGES } from '@/core/tax/taxCode';
import { taxNumberFault } from '@/core/tax/taxNumber';
import { type Address, addressSchema } from './address';
import { type Endpoint, endpointSchema } from './endpoint';
import { isTerms } from './terms';

/** What the registry of tax numbers answered, kept as evidence. */
export interface NumberCheck {
  readonly result: 'valid' | 'invalid' | 'unreachable';
  readonly on: IsoDate;
  /** The registry's own reference for the enquiry; empty when it did not answer. */
  readonly reference: string;
}

/** A tax number of a customer with its last enquiry. */
export interface TaxNumber {
  /** ISO 3166-1 alpha-2 of the authority that gave it. */
  readonly country: string;
  readonly number: string;
  readonly check: NumberCheck | null;
}

export interface Customer {
  readonly id: string;
  readonly name: string;
  readonly kind: CustomerKind;
  readonly address: Address;
  readonly email: string;
  /** ISO 639-1 of the language that documents are written in for them. */
  readonly language: string;
  /** VAT or sales tax numbers; the first one prints. */
  readonly taxNumbers: readonly TaxNumber[];
  readonly endpoint: Endpoint;
  /** Due date from the issue date: `30d`, `eom+10d`. */
  readonly terms: string;
  /** Tax code that goes before the decision table; empty for none. */
  readonly taxCode: string;
  readonly priceMode: PriceMode;
  /** Price list that goes before the items' own prices; empty for none. */
  readonly priceListId: string;
  /** Jurisdictions, with all that lie in them, that may not tax this customer. */
  readonly notLiableIn: readonly string[];
  /** Withholding types that this customer applies. */
  readonly withholding: readonly string[];
}

const checkSchema = yup
  .object({
    result: yup.string().oneOf(['valid', 'invalid', 'unreachable']).defined(),
    on: dateText('a day'),
    reference: yup.string().defined(),
  })
  .nullable()
  .defined();

const taxNumberSchema = yup
  .object({ country: countryCode(), number: neededText('the number', 30), check: checkSchema })
  .test('form', 'form', function form({ country, number }) {
    const fault = number.trim() === '' ? null : taxNumberFault(country, number);
    return fault === null || this.createError({ path: `${this.path}.number`, message: fault });
  });

export const customerSchema = yup.object({
  id: neededText('an id'),
  name: neededText("the customer's name"),
  kind: yup.string().oneOf(CUSTOMER_KINDS, 'Choose what kind of customer it is.').defined(),
  address: addressSchema,
  email: optionalText(200).email('Give an e-mail address such as accounts@example.com.'),
  language: yup.string().oneOf(Object.keys(LANGUAGES), 'Choose a language.').defined(),
  taxNumbers: yup.array().of(taxNumberSchema).defined(),
  endpoint: endpointSchema,
  terms: yup
    .string()
    .defined()
    .test('terms', 'Say terms as 30d, 2w, 1m, eom or eom+10d.', (v) => isTerms(v)),
  taxCode: optionalText(40),
  priceMode: yup.string().oneOf(['net', 'gross']).defined(),
  priceListId: optionalText(60),
  notLiableIn: yup.array().of(neededText('a jurisdiction')).defined(),
  withholding: yup.array().of(neededText('a withholding type')).defined(),
});

/** The number that prints on documents, or empty. */
export function mainNumber(customer: Pick<Customer, 'taxNumbers'>): string {
  return customer.taxNumbers[0]?.number ?? '';
}

/**
 * What is known of the customer's tax number for a supply to a country: its numbers of that country
 * where there are any, else all of them.
 */
export function numberStateFor(customer: Pick<Customer, 'taxNumbers'>, country: string): NumberState {
  const local = customer.taxNumbers.filter((n) => n.country === country);
  const asked = local.length > 0 ? local : customer.taxNumbers;
  if (asked.length === 0) return 'none';
  return asked.some((n) => n.check?.result === 'valid') ? 'verified' : 'unverified';
}
