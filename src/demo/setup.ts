import type { Item } from '@/core/documents/item';
import { currency } from '@/core/kernel/currency';
import { type IsoDate, isoDate } from '@/core/kernel/date';
import { decimal } from '@/core/kernel/decimal';
import type { Business } from '@/core/parties/business';
import type { Customer } from '@/core/parties/customer';
import type { Registration } from '@/core/tax/registration';
import type { TaxCode } from '@/core/tax/taxCode';

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
  iban: 'IE31CPTB99000012345678',
  bic: '',
  endpoint: { scheme: '9935', id: 'IE7654321G' },
  homeCurrency: currency('EUR'),
};

export function demoRegistration(keptFrom: IsoDate): Registration {
  return {
    id: 'ie-vat',
    name: 'Ireland · VAT',
    authority: 'Revenue (sample)',
    country: 'IE',
    number: 'IE7654321G',
    frequency: 'two-monthly',
    basis: 'on-issue',
    keptFrom,
    filedUntil: '',
  };
}

function code(
  fields: Omit<TaxCode, 'rates' | 'taxClass' | 'legend' | 'exemptionCode'> & Partial<TaxCode>,
  ...rates: [string, string][]
): TaxCode {
  return {
    taxClass: '',
    legend: '',
    exemptionCode: '',
    ...fields,
    rates: rates.map(([from, percent]) => ({ from: isoDate(from), percent: decimal(percent) })),
  };
}

export const IRISH_CODES: readonly TaxCode[] = [
  code(
    { id: 'S23', name: 'Standard 23', category: 'S', taxClass: 'standard' },
    ['2012-01-01', '23'],
    ['2020-09-01', '21'],
    ['2021-03-01', '23'],
  ),
  code({ id: 'R135', name: 'Reduced 13.5', category: 'S', taxClass: 'repair' }, ['2003-01-01', '13.5']),
  code({ id: 'Z0', name: 'Zero, books', category: 'Z', taxClass: 'books' }, ['1972-11-01', '0']),
  code(
    {
      id: 'RC',
      name: 'Reverse charge',
      category: 'AE',
      legend: 'Reverse charge: VAT to be accounted for by the customer.',
      exemptionCode: 'VATEX-EU-AE',
    },
    ['2010-01-01', '0'],
  ),
  code(
    {
      id: 'IC',
      name: 'Intra-community goods',
      category: 'K',
      legend: 'Intra-community supply, Art. 138 Directive 2006/112/EC.',
      exemptionCode: 'VATEX-EU-IC',
    },
    ['1993-01-01', '0'],
  ),
  code(
    {
      id: 'EX',
      name: 'Export',
      category: 'G',
      legend: 'Export outside the EU, Art. 146 Directive 2006/112/EC.',
      exemptionCode: 'VATEX-EU-G',
    },
    ['1993-01-01', '0'],
  ),
];

type Who = Partial<Customer> & Pick<Customer, 'id' | 'name'>;

function customer(who: Who, street: string, city: string, postalCode: string, country: string, region = ''): Customer {
  return {
    email: '',
    taxNumber: '',
    endpoint: { scheme: '', id: '' },
    terms: '30d',
    taxCode: '',
    priceMode: 'net',
    ...who,
    address: { street, city, region, postalCode, country },
  };
}

export const DEMO_CUSTOMERS: readonly Customer[] = [
  customer(
    {
      id: 'ballyvaughan',
      name: 'Ballyvaughan Harbour Board',
      taxNumber: 'IE8100234D',
      endpoint: { scheme: '9935', id: 'IE8100234D' },
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
      name: 'Kilkerrin Bay Harbour Commissioners',
      taxNumber: 'IE8100345M',
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
      taxNumber: 'IE8100456V',
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
    { id: 'inishmaan', name: 'Inishmaan Shellfish', taxNumber: 'IE8100567H', terms: 'eom+10d' },
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
      taxNumber: 'DE812345673',
      taxCode: 'RC',
      endpoint: { scheme: '9930', id: 'DE812345673' },
    },
    'Columbuskai 900',
    'Bremerhaven',
    '27568',
    'DE',
  ),
  customer(
    { id: 'nordkapp', name: 'Nordkapp Havinstitutt', taxCode: 'EX', terms: '1m' },
    'Sjøgata 900',
    'Tromsø',
    '9008',
    'NO',
  ),
  customer({ id: 'orcas', name: 'Orcas Marina', taxCode: 'EX' }, '900 Ferry Landing', 'Eastsound', '98245', 'US', 'WA'),
  customer(
    { id: 'mombasa', name: 'Mombasa Port Services', taxCode: 'EX' },
    'Kizingo Road 900',
    'Mombasa',
    '80100',
    'KE',
  ),
  customer(
    { id: 'counter', name: 'Repair counter', terms: '0d', priceMode: 'gross' },
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
  return { id, name, description, unit, price: decimal(price), account, taxClass };
}

export const DEMO_ITEMS: readonly Item[] = [
  item('gauge', 'Tide gauge, radar, 20 m', 'C62', '940.00', '4000', 'standard', 'bracket included'),
  item('probe', 'Salinity probe, titanium', 'C62', '1285.00', '4000', 'standard'),
  item('buoy', 'Wave buoy, 0.9 m', 'C62', '8450.00', '4000', 'standard', 'mooring not included'),
  item('calibration', 'On-site calibration', 'DAY', '160.00', '4100', 'standard'),
  item('hire', 'Wave buoy hire', 'WEE', '310.00', '4200', 'standard'),
  item('repair', 'Instrument repair', 'HUR', '62.00', '4300', 'repair'),
  item('seals', 'Seal kit', 'SET', '18.45', '4000', 'standard'),
  item('tables', 'Tide tables, printed', 'C62', '1.50', '4000', 'books'),
];
