import * as yup from 'yup';
import { CURRENCIES } from '@/core/kernel/currency';
import type { IsoDate } from '@/core/kernel/date';
import { countryCode, dateText, neededText, optionalText } from '@/core/kernel/validate';
import { wanted } from '@/core/kernel/wanted';
import type { PriceMode } from '@/core/tax/calcTypes';
import { CUSTOMER_KINDS, type CustomerKind, type NumberState } from '@/core/tax/decisionTable';
import { LANGUAGES } from '@/core/tax/taxCode';
import { taxNumberFault } from '@/core/tax/taxNumber';
import { type Address, addressSchema } from './address';
import { type Endpoint, endpointSchema } from './endpoint';
import { type Mandate, mandateSchema, NO_MANDATE } from './mandate';
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

/** A person at a customer. */
export interface Contact {
  readonly name: string;
  /** What they are asked about: accounts, the harbour master. */
  readonly role: string;
  readonly email: string;
  readonly phone: string;
  /** What is sent to them; missing for nothing of its own. */
  readonly gets?: readonly MailTopic[];
}

/** What messages are about, as contacts get them. */
export const MAIL_TOPICS = ['quotes', 'invoices', 'statements', 'reminders'] as const;

export type MailTopic = (typeof MAIL_TOPICS)[number];

export const SENDING_WAYS = ['mail', 'e-invoice', 'print', 'none'] as const;

/** How documents go to a customer. */
export type SendingWay = (typeof SENDING_WAYS)[number];

/**
 * What goes along with a message about a document: its page, its page with the e-invoice inside, its
 * e-invoice, the note that goes with the goods.
 */
export const SENT_FILES = ['pdf', 'hybrid', 'ubl', 'delivery-note'] as const;

export type SentFile = (typeof SENT_FILES)[number];

/** How a customer is sent its documents. */
export interface Sending {
  /** Empty: by e-invoice where it has an address for them, else by mail where it has one. */
  readonly way: SendingWay | '';
  readonly files: readonly SentFile[];
}

/** An address beside the main one, such as a place of delivery. */
export interface NamedAddress {
  readonly label: string;
  readonly address: Address;
}

export interface Customer {
  readonly id: string;
  readonly name: string;
  /** Quoted to, but not a customer yet: an address is not needed. The first invoice ends it. */
  readonly prospect: boolean;
  /** The customer it belongs to, such as a head office; empty for none. */
  readonly parentId: string;
  /** The customer that it turned out to be the double of; empty for none. */
  readonly mergedInto: string;
  readonly kind: CustomerKind;
  readonly address: Address;
  readonly addresses: readonly NamedAddress[];
  readonly contacts: readonly Contact[];
  readonly email: string;
  /** ISO 639-1 of the language that documents are written in for them. */
  readonly language: string;
  /** VAT or sales tax numbers; the first one prints. */
  readonly taxNumbers: readonly TaxNumber[];
  readonly endpoint: Endpoint;
  /** Its invoices are collected by direct debit where it has given one. */
  readonly mandate: Mandate;
  /** Due date from the issue date: `30d`, `eom+10d`. */
  readonly terms: string;
  /** Tax code that goes before the decision table; empty for none. */
  readonly taxCode: string;
  /** The place whose taxes its address takes, where it was chosen; missing or empty where the address decides. */
  readonly placeId?: string;
  /** Not offered any more; what was sold to it stays as it is. */
  readonly archived?: boolean;
  readonly priceMode: PriceMode;
  /** Currency of its documents; empty for the home currency. */
  readonly currency: string;
  /** Document style; empty for the book's first. */
  readonly styleId: string;
  /** Price list that goes before the items' own prices; empty for none. */
  readonly priceListId: string;
  /** Jurisdictions, with all that lie in them, that may not tax this customer. */
  readonly notLiableIn: readonly string[];
  /** Not reminded of what is overdue. */
  readonly notReminded?: boolean;
  /** Missing until something of it was chosen. */
  readonly sending?: Sending;
  /** Withholding types that this customer applies. */
  readonly withholding: readonly string[];
}

const checkSchema = yup
  .object({
    result: yup.string().oneOf(['valid', 'invalid', 'unreachable']).defined(),
    on: dateText('give-a-day'),
    reference: yup.string().defined(),
  })
  .nullable()
  .defined();

const taxNumberSchema = yup
  .object({ country: countryCode(), number: neededText('give-the-number', 30), check: checkSchema })
  .test('form', 'form', function form({ country, number }) {
    const fault = number.trim() === '' ? null : taxNumberFault(country, number);
    return fault === null || this.createError({ path: `${this.path}.number`, message: fault });
  });

const contactSchema = yup.object({
  name: neededText('give-the-name'),
  role: optionalText(60),
  email: optionalText(200).email(wanted('give-e-mail')),
  phone: optionalText(50),
  gets: yup.array().of(yup.string().oneOf(MAIL_TOPICS).defined()),
});

const sendingSchema = yup
  .object({
    way: yup
      .string()
      .oneOf(['', ...SENDING_WAYS], wanted('choose-way-of-sending'))
      .defined(),
    files: yup.array().of(yup.string().oneOf(SENT_FILES).defined()).defined(),
  })
  .default(undefined);

/** What is known of a prospect's address may be as little as its country. */
const prospectAddressSchema = yup.object({
  street: optionalText(200),
  city: optionalText(100),
  region: optionalText(100),
  postalCode: optionalText(20),
  country: countryCode(),
});

export const customerSchema = yup.object({
  id: neededText('give-id'),
  name: neededText('give-name-of-customer'),
  prospect: yup.boolean().defined(),
  parentId: optionalText(80).test('self', wanted('not-itself'), function self(v) {
    return v === '' || v !== (this.parent as { id?: string }).id;
  }),
  mergedInto: optionalText(80),
  kind: yup.string().oneOf(CUSTOMER_KINDS, wanted('choose-kind-of-customer')).defined(),
  address: yup.lazy((_, { parent }) =>
    (parent as Customer | undefined)?.prospect === true ? prospectAddressSchema : addressSchema,
  ),
  addresses: yup
    .array()
    .of(yup.object({ label: neededText('say-what-address-is-for', 60), address: addressSchema }))
    .defined(),
  contacts: yup.array().of(contactSchema).defined(),
  email: optionalText(200).email(wanted('give-e-mail')),
  language: yup.string().oneOf(Object.keys(LANGUAGES), wanted('choose-language')).defined(),
  taxNumbers: yup.array().of(taxNumberSchema).defined(),
  endpoint: endpointSchema,
  mandate: mandateSchema,
  terms: yup
    .string()
    .defined()
    .test('terms', wanted('say-terms'), (v) => isTerms(v)),
  taxCode: optionalText(40),
  placeId: yup.string(),
  archived: yup.boolean(),
  priceMode: yup.string().oneOf(['net', 'gross']).defined(),
  currency: yup
    .string()
    .oneOf(['', ...CURRENCIES], wanted('choose-currency'))
    .defined(),
  styleId: optionalText(80),
  priceListId: optionalText(60),
  notReminded: yup.boolean(),
  sending: sendingSchema,
  notLiableIn: yup.array().of(neededText('give-a-jurisdiction')).defined(),
  withholding: yup.array().of(neededText('give-withholding-type')).defined(),
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

/** Languages of documents by country, where it is not English. */
const LANGUAGE_BY_COUNTRY: Readonly<Record<string, string>> = {
  AT: 'de',
  CH: 'de',
  DE: 'de',
  ES: 'es',
  FR: 'fr',
  LI: 'de',
};

/** The language that documents to customers of a country are written in, until another one is chosen. */
export function languageOf(country: string): string {
  return LANGUAGE_BY_COUNTRY[country] ?? 'en';
}

/** How documents go to a customer: as was chosen, else by what addresses it has. */
export function sendingOf({ sending, endpoint, email, contacts }: Customer): {
  readonly way: SendingWay;
  readonly files: readonly SentFile[];
} {
  const hasMail = email !== '' || contacts.some((contact) => contact.email !== '');
  const usual = endpoint.id !== '' ? 'e-invoice' : hasMail ? 'mail' : 'print';
  const files = sending?.files ?? [];
  return { way: sending?.way || usual, files: files.length === 0 ? ['pdf'] : files };
}

/** A customer of whom only the name is known. */
export function blankCustomer(id: string, name: string, country: string): Customer {
  return {
    id,
    name,
    prospect: false,
    parentId: '',
    mergedInto: '',
    kind: 'business',
    address: { street: '', city: '', region: '', postalCode: '', country },
    addresses: [],
    contacts: [],
    email: '',
    language: 'en',
    taxNumbers: [],
    endpoint: { scheme: '', id: '' },
    mandate: NO_MANDATE,
    terms: '30d',
    taxCode: '',
    priceMode: 'net',
    currency: '',
    styleId: '',
    priceListId: '',
    notLiableIn: [],
    withholding: [],
  };
}

/** Addresses of customers with their chosen places; the same object each time, as what is decided is remembered by it. */
const placed = new WeakMap<Customer, Address & { readonly placeId: string }>();

/** The address of a customer as taxes look at it. */
export function whereaboutsOf(customer: Customer): Address & { readonly placeId?: string } {
  const { address, placeId = '' } = customer;
  if (placeId === '') return address;
  const known = placed.get(customer) ?? { ...address, placeId };
  placed.set(customer, known);
  return known;
}
