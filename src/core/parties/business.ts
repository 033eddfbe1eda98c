import * as yup from 'yup';
import { CURRENCIES, type Currency } from '@/core/kernel/currency';
import { type OwnUnit, ownUnitSchema } from '@/core/kernel/unit';
import { neededText, optionalText } from '@/core/kernel/validate';
import { wanted } from '@/core/kernel/wanted';
import { type Address, addressSchema } from './address';
import { type Endpoint, endpointSchema } from './endpoint';
import { type ReminderRules, reminderRulesSchema } from './reminderRules';

/** Where messages come from, and where a copy of them goes as evidence; either may be empty. */
export function mailAddresses({ mail, email }: Pick<Business, 'mail' | 'email'>): {
  readonly from: string;
  readonly copyTo: string;
} {
  return { from: mail?.from || email, copyTo: mail?.copyTo || email };
}

/** The one business a book is kept for. */
export interface Business {
  readonly name: string;
  readonly address: Address;
  /** Company register number, or empty. */
  readonly legalId: string;
  readonly email: string;
  readonly phone: string;
  /** Creditor identifier, by which we collect direct debits; empty for none. */
  readonly creditorId: string;
  readonly endpoint: Endpoint;
  readonly homeCurrency: Currency;
  /** Style of documents for which none is chosen; empty for the plain one. */
  readonly styleId: string;
  /** Where customers pay by card, and what is charged for it, in percent; missing or empty for nowhere and nothing. */
  readonly cards?: { readonly page: string; readonly surcharge: string };
  /** Who messages come from; missing where that is our own e-mail address. */
  readonly mail?: { readonly from: string; readonly copyTo: string };
  /** How customers are reminded; missing for the usual way. */
  readonly reminders?: ReminderRules;
  /** Units with words of our own; missing for none. */
  readonly units?: readonly OwnUnit[];
}

export const businessSchema = yup.object({
  name: neededText('give-name-of-business'),
  address: addressSchema,
  legalId: optionalText(50),
  email: optionalText(200).email(wanted('give-e-mail')),
  phone: optionalText(50),
  creditorId: optionalText(35),
  endpoint: endpointSchema,
  homeCurrency: yup.string().oneOf(CURRENCIES, wanted('choose-currency')).defined(),
  styleId: optionalText(80),
  cards: yup
    .object({
      page: optionalText(200).matches(/^(?:https?:\/\/\S+)?$/, wanted('give-address-of-page')),
      surcharge: optionalText(6).matches(/^(?:\d{1,2}(?:\.\d{1,2})?)?$/, wanted('give-percentage')),
    })
    .default(undefined),
  mail: yup
    .object({
      from: optionalText(200).email(wanted('give-e-mail')),
      copyTo: optionalText(200).email(wanted('give-e-mail')),
    })
    .default(undefined),
  reminders: reminderRulesSchema.default(undefined),
  units: yup.array().of(ownUnitSchema),
});
