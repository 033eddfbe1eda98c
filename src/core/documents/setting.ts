import type { RateOn } from '@/core/currency/exchangeRate';
import type { Currency } from '@/core/kernel/currency';
import { type Minor, NOTHING } from '@/core/kernel/money';
import { type BankAccount, bankAccountFor } from '@/core/parties/bankAccount';
import type { Business } from '@/core/parties/business';
import type { Certificate } from '@/core/parties/certificate';
import { type Customer, mainNumber } from '@/core/parties/customer';
import { localAccountOf } from '@/core/parties/localAccount';
import type { Registration, RegistrationRounding } from '@/core/tax/registration';
import type { TaxSetup } from '@/core/tax/taxSetup';
import type { FrozenBuyer, FrozenSeller } from './content';
import type { Draft } from './draft';
import { DRAFT_KINDS, type DraftKind } from './kinds';
import { styleFor } from './look';
import type { DocumentStyle } from './style';

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
  readonly styles: readonly DocumentStyle[];
  readonly bankAccounts: readonly BankAccount[];
  /** The rate of a currency on the tax point; null when none is known. */
  readonly rateOf: (currency: string) => RateOn | null;
}

/** The registration of a draft; the first of the book where it names none that is there. */
export function registrationFor(setting: Pick<Setting, 'setup'>, registrationId: string): Registration | undefined {
  const { registrations } = setting.setup;
  return registrations.find((r) => r.id === registrationId) ?? registrations[0];
}

/** The seller's details as they go into a document, with the account it is paid into, where it has one. */
export function freezeSeller(business: Business, registration: Registration, paidInto?: BankAccount): FrozenSeller {
  const { name, address, legalId, email, phone, endpoint } = business;
  const { number: taxNumber, country: taxCountry } = registration;
  const { iban = '', bic = '' } = paidInto ?? {};
  const local = paidInto && localAccountOf(paidInto.local);
  return { name, address, legalId, email, phone, iban, bic, endpoint, taxNumber, taxCountry, ...(local && { local }) };
}

/** The bank account that a draft says to pay into: its own choice, its style's, or the one for its currency. */
export function paidInto(
  draft: Pick<Draft, 'styleId' | 'currency' | 'bankAccountId'>,
  customer: Customer | null,
  { business, styles, bankAccounts }: Pick<Setting, 'business' | 'styles' | 'bankAccounts'>,
): BankAccount | undefined {
  const style = styleFor(styles, draft.styleId, customer?.styleId ?? '', business.styleId);
  const { homeCurrency } = business;
  return bankAccountFor(
    bankAccounts,
    draft.currency || homeCurrency,
    homeCurrency,
    draft.bankAccountId,
    style.bankAccountId,
  );
}

/** The customer's details as they go into a document. */
export function freezeBuyer(customer: Customer, contact = ''): FrozenBuyer {
  const { name, address, email, endpoint, language } = customer;
  return { name, address, email, taxNumber: mainNumber(customer), endpoint, language, ...(contact && { contact }) };
}

/**
 * How a registration rounds a document: to the smallest coin only where it is paid in coins, which is
 * a sale at the counter paid in cash, in the home currency.
 */
export function roundingIn(
  registration: Registration,
  currency: Currency,
  paid: { readonly kind: DraftKind; readonly paidBy: string },
  setting: Setting,
): RegistrationRounding {
  const { rounding } = registration;
  const inCoins = DRAFT_KINDS[paid.kind].paidAtOnce && paid.paidBy === 'cash';
  return inCoins && currency === setting.business.homeCurrency ? rounding : { ...rounding, cashStep: '' };
}
