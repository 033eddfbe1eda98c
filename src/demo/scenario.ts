import type { PriceMode } from '@/core/tax/calcTypes';

/** A day counted from the first day of a tax period: period 0 is the current one, −1 the one before. */
export interface When {
  readonly period: -2 | -1 | 0;
  readonly day: number;
}

export interface ScenarioLine {
  readonly item?: string;
  readonly text?: string;
  readonly quantity: string;
  readonly price?: string;
  readonly discount?: string;
  readonly code?: string;
  /** What a typed line supplies; goods unless said. */
  readonly supply?: 'service';
}

export type Step =
  | {
      readonly kind: 'invoice' | 'draft' | 'quote';
      readonly when: When;
      /** How the scenario speaks of it later. */
      readonly name: string;
      readonly customer: string;
      readonly lines: readonly ScenarioLine[];
      readonly taxPoint?: When;
      readonly priceMode?: PriceMode;
      readonly buyerReference?: string;
      readonly orderNumber?: string;
      readonly note?: string;
      readonly subject?: string;
      readonly tags?: readonly string[];
      /** In percent of the lines. */
      readonly discount?: string;
      /** The earlier quote that it takes the place of. */
      readonly replaces?: string;
      readonly currency?: string;
    }
  | { readonly kind: 'accept'; readonly when: When; readonly of: string; readonly by: string }
  | {
      readonly kind: 'receipt';
      readonly when: When;
      readonly of: string;
      /** Money, in currency units; all that is open unless it is given. What is more than that is kept on account. */
      readonly amount?: string;
      /** Tax kept back with it, by type. */
      readonly withheld?: readonly { readonly typeId: string; readonly amount: string }[];
      readonly reference: string;
    }
  | { readonly kind: 'credit'; readonly when: When; readonly of: string; readonly reason: string }
  | { readonly kind: 'send'; readonly when: When; readonly of: string }
  | { readonly kind: 'file'; readonly when: When; readonly period: -2 | -1 }
  | {
      readonly kind: 'journal';
      readonly when: When;
      readonly text: string;
      /** Account and amount in minor units; debits above zero. */
      readonly sides: readonly (readonly [string, bigint])[];
    };

const on = (period: When['period'], day: number): When => ({ period, day });

/**
 * Some six months of Corran Point Instruments, in order of time, with deliberate trouble: an
 * underpaid receipt, an invoice taken back, a document that comes late for a filed period, and a
 * manual journal in the tax account.
 */
export const SCENARIO: readonly Step[] = [
  {
    kind: 'journal',
    when: on(-2, 0),
    text: 'Capital paid in',
    sides: [
      ['1000', 1500000n],
      ['3000', -1500000n],
    ],
  },
  {
    kind: 'invoice',
    when: on(-2, 3),
    name: 'gauges',
    customer: 'ballyvaughan',
    buyerReference: 'BHB-7702',
    lines: [
      { item: 'gauge', quantity: '2' },
      { item: 'calibration', quantity: '2', discount: '10%' },
    ],
  },
  {
    kind: 'invoice',
    when: on(-2, 6),
    name: 'salmon-probes',
    customer: 'clewbay',
    orderNumber: 'CB-118',
    lines: [
      { item: 'probe', quantity: '3', discount: '5%' },
      { item: 'seals', quantity: '6' },
    ],
  },
  {
    kind: 'invoice',
    when: on(-2, 11),
    name: 'counter-1',
    customer: 'counter',
    priceMode: 'gross',
    lines: [
      { item: 'repair', quantity: '1.25', price: '70.37' },
      { item: 'tables', quantity: '2' },
    ],
  },
  { kind: 'receipt', when: on(-2, 11), of: 'counter-1', reference: 'Card' },
  {
    kind: 'invoice',
    when: on(-2, 16),
    name: 'vessel',
    customer: 'nordlicht',
    buyerReference: 'FS-21',
    lines: [{ item: 'calibration', quantity: '4' }],
  },
  {
    kind: 'invoice',
    when: on(-2, 20),
    name: 'vessel-goods',
    customer: 'nordlicht',
    buyerReference: 'FS-22',
    lines: [{ item: 'probe', quantity: '2' }],
  },
  { kind: 'receipt', when: on(-2, 22), of: 'salmon-probes', reference: 'Clew Bay 118' },
  {
    kind: 'invoice',
    when: on(-2, 27),
    name: 'wrong-buoy',
    customer: 'kilkerrin',
    buyerReference: 'KB-3',
    lines: [{ item: 'buoy', quantity: '1' }],
  },
  { kind: 'credit', when: on(-2, 30), of: 'wrong-buoy', reason: 'Hire was ordered, not a sale' },
  {
    kind: 'invoice',
    when: on(-2, 30),
    name: 'buoy-hire',
    customer: 'kilkerrin',
    buyerReference: 'KB-3',
    lines: [{ item: 'hire', quantity: '6' }],
  },
  { kind: 'receipt', when: on(-2, 33), of: 'gauges', reference: 'BHB 0093' },
  {
    kind: 'invoice',
    when: on(-2, 41),
    name: 'institute',
    customer: 'nordkapp',
    lines: [
      { item: 'buoy', quantity: '1' },
      { text: 'Packing for sea freight', quantity: '1', price: '240.00' },
    ],
  },
  { kind: 'receipt', when: on(-2, 52), of: 'vessel', reference: 'FS-21' },
  {
    kind: 'invoice',
    when: on(-2, 55),
    name: 'counter-2',
    customer: 'counter',
    priceMode: 'gross',
    lines: [{ item: 'seals', quantity: '2', price: '22.69' }],
  },
  { kind: 'receipt', when: on(-2, 55), of: 'counter-2', reference: 'Cash' },
  { kind: 'file', when: on(-1, 14), period: -2 },
  {
    kind: 'invoice',
    when: on(-1, 15),
    name: 'late',
    customer: 'inishmaan',
    taxPoint: on(-2, 58),
    lines: [{ item: 'calibration', quantity: '1.5' }],
    note: 'Calibration of the raft sensors, done before the season opened.',
  },
  {
    kind: 'invoice',
    when: on(-1, 16),
    name: 'marina',
    customer: 'orcas',
    lines: [{ item: 'gauge', quantity: '4', discount: '150.00' }],
  },
  { kind: 'receipt', when: on(-1, 18), of: 'institute', reference: 'NHI 2210' },
  {
    kind: 'invoice',
    when: on(-1, 20),
    name: 'port',
    customer: 'mombasa',
    lines: [
      { item: 'gauge', quantity: '1' },
      { item: 'probe', quantity: '1' },
      { text: 'Training, remote', quantity: '3', price: '95.00', supply: 'service' },
    ],
  },
  {
    kind: 'receipt',
    when: on(-1, 26),
    of: 'port',
    amount: '2000.00',
    withheld: [{ typeId: 'KE-WHVAT', amount: '40.82' }],
    reference: 'MPS part',
  },
  {
    kind: 'invoice',
    when: on(-1, 28),
    name: 'harbour-repair',
    customer: 'ballyvaughan',
    buyerReference: 'BHB-7729',
    lines: [
      { item: 'repair', quantity: '7.5' },
      { item: 'seals', quantity: '3' },
    ],
  },
  { kind: 'receipt', when: on(-1, 31), of: 'buoy-hire', amount: '2000.00', reference: 'KB-3 underpaid' },
  {
    kind: 'invoice',
    when: on(-1, 36),
    name: 'counter-3',
    customer: 'counter',
    priceMode: 'gross',
    lines: [
      { item: 'repair', quantity: '0.5', price: '70.37' },
      { item: 'tables', quantity: '1', price: '1.50' },
    ],
  },
  { kind: 'receipt', when: on(-1, 36), of: 'counter-3', reference: 'Card' },
  {
    kind: 'invoice',
    when: on(-1, 43),
    name: 'salmon-hire',
    customer: 'clewbay',
    orderNumber: 'CB-140',
    lines: [
      { item: 'hire', quantity: '4' },
      { item: 'calibration', quantity: '1' },
    ],
  },
  {
    kind: 'journal',
    when: on(-1, 47),
    text: 'Tax on own use, to be checked',
    sides: [
      ['7900', 1840n],
      ['2200', -1840n],
    ],
  },
  {
    kind: 'invoice',
    when: on(-1, 50),
    name: 'kilkerrin-gauge',
    customer: 'kilkerrin',
    buyerReference: 'KB-9',
    lines: [
      { item: 'gauge', quantity: '1' },
      { item: 'calibration', quantity: '0.5' },
    ],
  },
  { kind: 'send', when: on(-1, 56), of: 'kilkerrin-gauge' },
  {
    kind: 'invoice',
    when: on(-1, 57),
    name: 'shellfish',
    customer: 'inishmaan',
    lines: [
      { item: 'probe', quantity: '1' },
      { item: 'tables', quantity: '12', discount: '10%' },
    ],
  },
  { kind: 'receipt', when: on(-1, 59), of: 'salmon-hire', reference: 'Clew Bay 140' },
  {
    kind: 'invoice',
    when: on(0, 2),
    name: 'harbour-gauge',
    customer: 'ballyvaughan',
    buyerReference: 'BHB-7741',
    lines: [
      { item: 'gauge', quantity: '1' },
      { item: 'calibration', quantity: '1.5', discount: '10%' },
      { item: 'tables', quantity: '4' },
    ],
  },
  {
    kind: 'invoice',
    when: on(0, 5),
    name: 'counter-4',
    customer: 'counter',
    priceMode: 'gross',
    lines: [
      { item: 'repair', quantity: '1', price: '70.37' },
      { text: 'Cable, 3 m', quantity: '1', price: '21.88' },
    ],
  },
  { kind: 'receipt', when: on(0, 5), of: 'counter-4', reference: 'Card' },
  {
    kind: 'invoice',
    when: on(0, 9),
    name: 'vessel-2',
    customer: 'nordlicht',
    buyerReference: 'FS-30',
    lines: [{ item: 'calibration', quantity: '3' }],
  },
  { kind: 'send', when: on(0, 10), of: 'vessel-2' },
  {
    kind: 'invoice',
    when: on(0, 13),
    name: 'institute-2',
    customer: 'nordkapp',
    lines: [{ item: 'hire', quantity: '8', discount: '12.5%' }],
  },
  { kind: 'send', when: on(0, 14), of: 'harbour-gauge' },
  { kind: 'receipt', when: on(0, 16), of: 'kilkerrin-gauge', reference: 'KB-9' },
  // More than what is open, which is nothing: a deposit that is kept on account.
  { kind: 'receipt', when: on(0, 17), of: 'salmon-hire', amount: '300.00', reference: 'CB deposit' },
  {
    kind: 'invoice',
    when: on(0, 19),
    name: 'salmon-repair',
    customer: 'clewbay',
    orderNumber: 'CB-152',
    lines: [
      { item: 'repair', quantity: '5.25' },
      { item: 'seals', quantity: '2' },
      { text: 'Freight', quantity: '1', price: '35.00' },
    ],
  },
  {
    kind: 'invoice',
    when: on(0, 20),
    name: 'marina-2',
    customer: 'orcas',
    orderNumber: 'OM-61',
    lines: [
      { item: 'gauge', quantity: '1' },
      { item: 'seals', quantity: '3' },
    ],
  },
  {
    kind: 'invoice',
    when: on(0, 20),
    name: 'university',
    customer: 'salish',
    orderNumber: 'STU-9',
    lines: [{ item: 'probe', quantity: '2' }],
  },
  {
    kind: 'quote',
    when: on(0, 6),
    name: 'quote-bay',
    customer: 'kilkerrin',
    subject: 'Tide gauges for the inner harbour',
    tags: ['harbours', 'Clare'],
    lines: [
      { item: 'gauge', quantity: '4' },
      { item: 'calibration', quantity: '3' },
    ],
  },
  {
    kind: 'quote',
    when: on(0, 9),
    name: 'quote-bay-2',
    customer: 'kilkerrin',
    replaces: 'quote-bay',
    subject: 'Tide gauges for the inner harbour',
    tags: ['harbours', 'Clare'],
    discount: '5',
    lines: [
      { item: 'gauge', quantity: '4' },
      { item: 'probe', quantity: '1' },
      { item: 'calibration', quantity: '4' },
    ],
  },
  { kind: 'accept', when: on(0, 13), of: 'quote-bay-2', by: 'Harbour engineer (sample)' },
  {
    kind: 'draft',
    when: on(0, 19),
    name: 'draft-institute',
    customer: 'nordkapp',
    currency: 'NOK',
    orderNumber: 'NH-2201',
    lines: [{ item: 'probe', quantity: '2', price: '14950.00' }],
  },
  { kind: 'draft', when: on(0, 20), name: 'draft-marina', customer: 'orcas', lines: [{ item: 'hire', quantity: '2' }] },
  {
    kind: 'draft',
    when: on(0, 22),
    name: 'draft-harbour',
    customer: 'ballyvaughan',
    buyerReference: 'BHB-7750',
    lines: [
      { item: 'gauge', quantity: '1' },
      { item: 'calibration', quantity: '1.5', discount: '10%' },
      { item: 'tables', quantity: '4' },
    ],
  },
];
