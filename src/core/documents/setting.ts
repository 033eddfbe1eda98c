import type { Business } from '@/core/parties/business';
import type { Customer } from '@/core/parties/customer';
import type { Registration } from '@/core/tax/registration';
import type { TaxCode } from '@/core/tax/taxCode';
import type { FrozenBuyer, FrozenSeller } from './content';

/** What a document is written against: who sells, under which registration and codes. */
export interface Setting {
  readonly business: Business;
  readonly registration: Registration;
  readonly codes: readonly TaxCode[];
}

/** The seller's details as they go into a document. */
export function freezeSeller(business: Business, registration: Registration): FrozenSeller {
  const { name, address, legalId, email, phone, iban, bic, endpoint } = business;
  return { name, address, legalId, email, phone, iban, bic, endpoint, taxNumber: registration.number };
}

/** The customer's details as they go into a document. */
export function freezeBuyer(customer: Customer): FrozenBuyer {
  const { name, address, email, taxNumber, endpoint } = customer;
  return { name, address, email, taxNumber, endpoint };
}
