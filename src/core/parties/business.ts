import * as yup from 'yup';
import { CURRENCIES, type Currency } from '@/core/kernel/currency';
import { neededText, optionalText } from '@/core/kernel/validate';
import { type Address, addressSchema } from './address';
import { type Endpoint, endpointSchema } from './endpoint';
import { isIban } from './iban';

/** The one business a book is kept for. */
export interface Business {
  readonly name: string;
  readonly address: Address;
  /** Company register number, or empty. */
  readonly legalId: string;
  readonly email: string;
  readonly phone: string;
  /** Account that customers pay into; empty until known. */
  readonly iban: string;
  readonly bic: string;
  /** Creditor identifier, by which we collect direct debits; empty for none. */
  readonly creditorId: string;
  readonly endpoint: Endpoint;
  readonly homeCurrency: Currency;
  /** Style of documents for which none is chosen; empty for the plain one. */
  readonly styleId: string;
}

export const businessSchema = yup.object({
  name: neededText('the name of the business'),
  address: addressSchema,
  legalId: optionalText(50),
  email: optionalText(200).email('Give an e-mail address such as accounts@example.com.'),
  phone: optionalText(50),
  iban: optionalText(42).test(
    'iban',
    'The check digits of this IBAN do not fit; compare it with a bank statement.',
    (v) => v.trim() === '' || isIban(v),
  ),
  bic: optionalText(11).test(
    'bic',
    'A BIC has 8 or 11 letters and digits.',
    (v) => v === '' || /^[A-Z]{6}[A-Z0-9]{2}([A-Z0-9]{3})?$/.test(v),
  ),
  creditorId: optionalText(35),
  endpoint: endpointSchema,
  homeCurrency: yup.string().oneOf(CURRENCIES, 'Choose a currency.').defined(),
  styleId: optionalText(80),
});
