import * as yup from 'yup';
import { neededText, optionalText } from '@/core/kernel/validate';
import type { PriceMode } from '@/core/tax/calcTypes';
import { type Address, addressSchema } from './address';
import { type Endpoint, endpointSchema } from './endpoint';
import { isTerms } from './terms';

export interface Customer {
  readonly id: string;
  readonly name: string;
  readonly address: Address;
  readonly email: string;
  /** VAT or sales tax number, or empty. */
  readonly taxNumber: string;
  readonly endpoint: Endpoint;
  /** Due date from the issue date: `30d`, `eom+10d`. */
  readonly terms: string;
  /** Tax code that goes before the item's own; empty for none. */
  readonly taxCode: string;
  readonly priceMode: PriceMode;
}

export const customerSchema = yup.object({
  id: neededText('an id'),
  name: neededText("the customer's name"),
  address: addressSchema,
  email: optionalText(200).email('Give an e-mail address such as accounts@example.com.'),
  taxNumber: optionalText(30),
  endpoint: endpointSchema,
  terms: yup
    .string()
    .defined()
    .test('terms', 'Say terms as 30d, 2w, 1m, eom or eom+10d.', (v) => isTerms(v)),
  taxCode: optionalText(30),
  priceMode: yup.string().oneOf(['net', 'gross']).defined(),
});
