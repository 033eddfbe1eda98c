import type { Item } from '@/core/catalogue/item';
import type { Beginning } from '@/core/decisions/setup/begin';
import { currency } from '@/core/kernel/currency';
import { type IsoDate, isoDate } from '@/core/kernel/date';
import { decimal } from '@/core/kernel/decimal';
import { type BankAccount, blankBankAccount } from '@/core/parties/bankAccount';
import type { Business } from '@/core/parties/business';
import type { Certificate } from '@/core/parties/certificate';
import { blankCustomer, type Customer, type TaxNumber } from '@/core/parties/customer';
import { packOf } from '@/core/tax/packs';
import type { Registration } from '@/core/tax/registration';
import { prepareSetup, type TaxSetup } from '@/core/tax/taxSetup';

/*
 * Corran Point Instruments and everyone it deals with are made up. Numbers pass their check digits
 * but belong to nobody; each says "sample" where there is room for it.
 */

export const DEMO_BUSINESS: Business = {
  name: 'Corran Point Instruments Ltd (sample)',
  address: {
    street: 'Unit 4, Corran Point\nDock Road',
    city: 'Galway',
    region: 'Co. Galway',
    postalCode: 'H91 X0X0',
    country: 'IE',
  },
  legalId: '000000',
  email: 'accounts@corranpoint.example',
  phone: '+353 91 000 000',
  creditorId: 'IE43ZZZ900000',
  endpoint: { scheme: '9935', id: 'IE7654321G' },
  homeCurrency: currency('EUR'),
  styleId: '',
};

export const DEMO_BANK_ACCOUNT: BankAccount = {
  ...blankBankAccount('bank', 'Bank', currency('EUR'), '1000'),
  iban: 'IE31CPTB99000012345678',
};

const ROUNDING = { mode: 'half-up', level: 'document', wholeUnits: false, cashStep: '' } as const;

export function demoRegistration(keptFrom: IsoDate): Registration {
  return {
    id: 'ie-vat',
    name: 'Ireland · VAT',
    authority: 'Revenue (sample)',
    country: 'IE',
    jurisdictionId: 'IE',
    number: 'IE7654321G',
    from: '',
    until: '',
    frequency: 'two-monthly',
    basis: 'on-issue',
    badDebtRelief: true,
    filingCurrency: currency('EUR'),
    rounding: ROUNDING,
    accounts: { output: '2200', notYetDue: '2220', payable: '2210' },
    keptFrom,
    filedUntil: '',
  };
}

/** The registration for sales tax in Washington State, filed in dollars. */
export function washingtonRegistration(from: IsoDate): Registration {
  return {
    ...demoRegistration(from),
    id: 'us-wa',
    name: 'Washington · sales tax',
    authority: 'Department of Revenue (sample)',
    country: 'US',
    jurisdictionId: 'US-WA',
    number: '600-000-001',
    from,
    frequency: 'monthly',
    filingCurrency: currency('USD'),
    accounts: { output: '', notYetDue: '', payable: '' },
  };
}

const IRELAND = packOf('IE');

/** What the sample book begins with: the business, its Irish registration and the Irish pack. */
export function demoBeginning(keptFrom: IsoDate): Beginning {
  const { jurisdictions, taxes, codes, rows } = IRELAND;
  const registration = demoRegistration(keptFrom);
  return {
    business: DEMO_BUSINESS,
    bankAccount: DEMO_BANK_ACCOUNT,
    registration,
    jurisdictions,
    taxes,
    codes,
    rows,
  };
}

/** The same set-up without a database, for what computes on it. */
export function demoSetup(keptFrom: IsoDate): TaxSetup {
  const { registration, jurisdictions, taxes, codes, rows } = demoBeginning(keptFrom);
  return prepareSetup({
    registrations: [registration],
    jurisdictions,
    taxes,
    codes,
    places: IRELAND.places,
    rows,
    withholdingTypes: [],
  });
}

export const DEMO_CERTIFICATES: readonly Certificate[] = [
  {
    id: 'salish-certificate',
    customerId: 'salish',
    jurisdictionId: 'US-WA',
    number: 'WA-R-000-SAMPLE',
    reason: 'research institution',
    from: isoDate('2025-01-01'),
    until: isoDate('2027-12-31'),
    file: null,
  },
];

const numbered = (country: string, number: string): TaxNumber => ({ country, number, check: null });

const verified = (country: string, number: string): TaxNumber => ({
  country,
  number,
  check: { result: 'valid', on: isoDate('2026-01-05'), reference: 'sample-0001' },
});

type Who = Partial<Customer> & Pick<Customer, 'id' | 'name'>;

function customer(who: Who, street: string, city: string, postalCode: string, country: string, region = ''): Customer {
  return {
    ...blankCustomer(who.id, who.name, country),
    ...who,
    address: { street, city, region, postalCode, country },
  };
}

export const DEMO_CUSTOMERS: readonly Customer[] = [
  customer(
    {
      id: 'ballyvaughan',
      kind: 'government',
      name: 'Ballyvaughan Harbour Board',
      taxNumbers: [numbered('IE', 'IE8100234D')],
      // Rejects invoices without an order number of theirs, and Nordlicht says nothing: see the simulated access point.
      endpoint: { scheme: '0088', id: '5391234500691' },
      email: 'office@ballyvaughan.example',
    },
    'Pier Road',
    'Ballyvaughan',
    'H91 X0X1',
    'IE',
    'Co. Clare',
  ),
  customer(
    {
      id: 'kilkerrin',
      kind: 'government',
      name: 'Kilkerrin Bay Harbour Commissioners',
      taxNumbers: [numbered('IE', 'IE8100345M')],
      endpoint: { scheme: '9935', id: 'IE8100345M' },
    },
    'The Harbour Office',
    'Kilkerrin',
    'H91 X0X2',
    'IE',
    'Co. Galway',
  ),
  customer(
    {
      id: 'clewbay',
      name: 'Clew Bay Salmon Co-op',
      taxNumbers: [numbered('IE', 'IE8100456V')],
      terms: '14d',
      email: 'ledger@clewbay.example',
    },
    'Old Fish Quay',
    'Westport',
    'F28 X0X3',
    'IE',
    'Co. Mayo',
  ),
  customer(
    { id: 'inishmaan', name: 'Inishmaan Shellfish', taxNumbers: [numbered('IE', 'IE8100567H')], terms: 'eom+10d' },
    'Slip House',
    'Inishmaan',
    'H91 X0X4',
    'IE',
    'Co. Galway',
  ),
  customer(
    {
      id: 'nordlicht',
      name: 'Reederei Nordlicht Forschung GmbH',
      language: 'de',
      taxNumbers: [verified('DE', 'DE812345673')],
      endpoint: { scheme: '0088', id: '4012345000290' },
    },
    'Columbuskai 900',
    'Bremerhaven',
    '27568',
    'DE',
  ),
  customer({ id: 'nordkapp', name: 'Nordkapp Havinstitutt', terms: '1m' }, 'Sjøgata 900', 'Tromsø', '9008', 'NO'),
  customer({ id: 'orcas', name: 'Orcas Marina' }, '900 Ferry Landing', 'Eastsound', '98245', 'US', 'WA'),
  customer(
    { id: 'mombasa', name: 'Mombasa Port Services', kind: 'government', withholding: ['KE-WHVAT'] },
    'Kizingo Road 900',
    'Mombasa',
    '80100',
    'KE',
  ),
  customer(
    { id: 'salish', name: 'Salish Tide University (sample)', kind: 'government' },
    '900 Shoreline Way',
    'Seattle',
    '98195',
    'US',
    'WA',
  ),
  customer(
    { id: 'counter', name: 'Repair counter', kind: 'consumer', terms: '0d', priceMode: 'gross' },
    'Unit 4, Corran Point',
    'Galway',
    'H91 X0X0',
    'IE',
  ),
];

function item(
  id: string,
  name: string,
  unit: string,
  price: string,
  account: string,
  taxClass: string,
  description = '',
): Item {
  const supply = ['HUR', 'DAY', 'WEE'].includes(unit) ? 'service' : 'goods';
  return { id, name, description, unit, price: decimal(price), priceMode: 'net', account, taxClass, supply };
}

export const DEMO_ITEMS: readonly Item[] = [
  item('gauge', 'Tide gauge, radar, 20 m', 'C62', '940.00', '4000', 'standard', 'bracket included'),
  item('probe', 'Salinity probe, titanium', 'C62', '1285.00', '4000', 'standard'),
  item('buoy', 'Wave buoy, 0.9 m', 'C62', '8450.00', '4000', 'standard', 'mooring not included'),
  item('calibration', 'On-site calibration', 'DAY', '160.00', '4100', 'standard'),
  item('hire', 'Wave buoy hire', 'WEE', '310.00', '4200', 'standard'),
  item('repair', 'Instrument repair', 'HUR', '62.00', '4300', 'reduced'),
  item('seals', 'Seal kit', 'SET', '18.45', '4000', 'standard'),
  item('tables', 'Tide tables, printed', 'C62', '1.50', '4000', 'zero'),
];
