import type { Decimal } from '@/core/kernel/decimal';
import { type Minor, NOTHING } from '@/core/kernel/money';
import type { Business } from '@/core/parties/business';
import type { Certificate } from '@/core/parties/certificate';
import { type Customer, mainNumber } from '@/core/parties/customer';
import type { Registration } from '@/core/tax/registration';
import type { TaxSetup } from '@/core/tax/taxSetup';
import type { FrozenBuyer, FrozenSeller } from './content';

/** What a customer was billed in a calendar year, in the home currency's minor units. */
export interface YearBases {
  readonly net: Minor;
  readonly tax: Minor;
  readonly gross: Minor;
}

export const NO_YEAR: YearBases = { net: NOTHING, tax: NOTHING, gross: NOTHING };

/** What a document is written against: who sells, under which tax set-up, and what is known of the customer. */
export interface Setting {
  readonly business: Business;
  readonly setup: TaxSetup;
  /** Certificates of the draft's customer. */
  readonly certificates: readonly Certificate[];
  /** What the customer was billed in the year of the tax point. */
  readonly yearSoFar: YearBases;
  /** Units of a currency for one unit of the home currency on the tax point; null when none is known. */
  readonly rateOf: (currency: string) => Decimal | null;
}

/** The registration of a draft; the first of the book where it names none that is there. */
export function registrationFor(setting: Pick<Setting, 'setup'>, registrationId: string): Registration | undefined {
  const { registrations } = setting.setup;
  return registrations.find((r) => r.id === registrationId) ?? registrations[0];
}

/** The seller's details as they go into a document. */
export function freezeSeller(business: Business, registration: Registration): FrozenSeller {
  const { name, address, legalId, email, phone, iban, bic, endpoint } = business;
  return { name, address, legalId, email, phone, iban, bic, endpoint, taxNumber: registration.number };
}

/** The customer's details as they go into a document. */
export function freezeBuyer(customer: Customer): FrozenBuyer {
  const { name, address, email, endpoint } = customer;
  return { name, address, email, taxNumber: mainNumber(customer), endpoint };
}
