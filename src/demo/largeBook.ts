import type { Moment } from '@/core/book/changes';
import type { CustomerRow } from '@/core/book/rows';
import type { BookContent } from '@/core/book/tables';
import { onePart } from '@/core/decisions/payments/onePart';
import { positionOf } from '@/core/decisions/payments/position';
import { receive } from '@/core/decisions/payments/recordReceipt';
import { issue } from '@/core/decisions/sales/issue';
import { beginBook } from '@/core/decisions/setup/begin';
import { saveRecord } from '@/core/decisions/setup/records';
import { blankDraft, blankLine, type Draft } from '@/core/documents/draft';
import type { IssuedDocument } from '@/core/documents/issued';
import { seriesFor } from '@/core/documents/series';
import { NO_YEAR, type Setting } from '@/core/documents/setting';
import { addDays, daysBetween, type IsoDate } from '@/core/kernel/date';
import { NO_RECORDS } from '@/core/tax/taxSetup';
import { MemoryBook } from './memoryBook';
import { DEMO_BUSINESS, DEMO_CUSTOMERS, DEMO_ITEMS, demoBeginning, demoSetup } from './setup';

const REGISTRATION = 'ie-vat';
/** Documents for each customer. */
const PER_CUSTOMER = 40;
/** Of ten invoices so many are paid in the end. */
const PAID_OF_TEN = 8;

const PLACES = ['Carrowmore', 'Dunloe', 'Inver', 'Kilbeg', 'Lissoy', 'Moyne', 'Rathcline', 'Tullan', 'Urlar', 'Annagh'];
const TRADES = [
  'Boats',
  'Chandlers',
  'Harbour Works',
  'Hatchery',
  'Marine',
  'Nets',
  'Piers',
  'Salmon',
  'Surveys',
  'Yachts',
];
const CODES = [
  ['IE-S', 'standard'],
  ['IE-R', 'reduced'],
  ['IE-Z', 'zero'],
] as const;

/** Numbers from 0 to below `below` that look random and are the same for the same seed. */
function picker(seed: number): (below: number) => number {
  let state = seed >>> 0;
  return (below) => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return Math.floor((state / 2 ** 32) * below);
  };
}

class LargeBook {
  private readonly book = new MemoryBook();
  private readonly pick: (below: number) => number;
  private readonly setting: Setting;
  private readonly open: IssuedDocument[] = [];
  private ids = 0;

  constructor(
    private readonly from: IsoDate,
    seed: number,
  ) {
    this.pick = picker(seed);
    this.setting = {
      business: DEMO_BUSINESS,
      setup: demoSetup(from),
      certificates: [],
      yearSoFar: NO_YEAR,
      styles: [],
      bankAccounts: [],
      rateOf: () => null,
    };
  }

  private moment(today: IsoDate): Moment {
    return { now: `${today}T09:00:00.000Z`, today, operator: 'Large book', newId: () => `large-${++this.ids}` };
  }

  begin(customers: number): void {
    const moment = this.moment(this.from);
    const plain = { isNew: false, records: NO_RECORDS, usedUntil: null, before: undefined };
    this.book.take(beginBook(demoBeginning(this.from), moment), 'begin book', moment);
    const accounts = new Set(this.book.rows('accounts').map(({ code }) => code));
    for (const item of DEMO_ITEMS)
      this.book.take(saveRecord('items', { ...item, keys: [] }, { ...plain, accounts }), 'change item', moment);
    const [first] = DEMO_CUSTOMERS;
    if (first === undefined) throw new Error('the sample has customers');
    for (let i = 0; i < customers; i++) {
      const name = `${PLACES[i % 10]} ${TRADES[Math.floor(i / 10) % 10]} ${Math.floor(i / 100) + 1}`;
      const customer = { ...first, id: `customer-${i}`, name, taxNumbers: [], keys: [] };
      this.book.take(saveRecord('customers', customer, plain), 'change customer', moment);
    }
  }

  private draft(i: number, customerId: string, day: IsoDate): Draft {
    const lines = Array.from({ length: 1 + this.pick(3) }, (_, j) => {
      const [taxCode, taxClass] = CODES[this.pick(CODES.length)] ?? CODES[0];
      const item = DEMO_ITEMS[this.pick(DEMO_ITEMS.length)];
      const price = `${10 + this.pick(900)}.${10 + this.pick(90)}`;
      const line = blankLine(`${i}-${j}`, '4000');
      return { ...line, description: item?.name ?? '', quantity: String(1 + this.pick(9)), price, taxClass, taxCode };
    });
    return {
      ...blankDraft(`document-${i}`, 'invoice', REGISTRATION, day),
      customerId,
      buyerReference: `R-${i}`,
      orderNumber: `PO-${1000 + i}`,
      lines,
    };
  }

  invoice(i: number, customers: readonly CustomerRow[], day: IsoDate): void {
    const customer = customers[this.pick(customers.length)];
    if (customer === undefined) throw new Error('a book has customers');
    const moment = this.moment(day);
    const material = {
      draft: this.draft(i, customer.id, day),
      customer,
      setting: this.setting,
      series: this.book.rows('series'),
      chart: this.book.rows('accounts'),
      family: [],
      advances: [],
    };
    const { id } = this.book.take(issue(material, { overrun: false }, moment), 'issue invoice', moment);
    const document = this.book.row('documents', id);
    if (document !== undefined && document.open > 0n && this.pick(10) < PAID_OF_TEN) this.open.push(document);
  }

  /** Pays the oldest invoice that waits for it, once a month's worth of them do. */
  payOldest(waiting: number, day: IsoDate): void {
    if (this.open.length <= waiting) return;
    const document = this.open.shift();
    const series = seriesFor(this.book.rows('series'), 'receipt', REGISTRATION);
    if (document === undefined || series === undefined) return;
    const { id, number, customerId, open } = document;
    const allocations = [{ documentId: id, number, amount: open }];
    const moment = this.moment(day);
    const received = receive(
      onePart({ customerId, date: day, method: 'bank', reference: number, allocations }),
      {
        customer: this.book.row('customers', customerId),
        position: positionOf(
          { chart: this.book.rows('accounts'), registrations: this.book.rows('registrations') },
          { debts: [document], credits: [], allocations: [], notes: [] },
        ),
        homeCurrency: document.content.currency,
        series,
        numberTaken: false,
        rate: null,
        withholdingTypes: [],
        credits: new Map(),
      },
      moment,
    );
    this.book.take(received, 'record receipt', moment);
  }

  customers(): readonly CustomerRow[] {
    return this.book.rows('customers');
  }

  content(): BookContent {
    return this.book.content();
  }
}

/**
 * A book of so many invoices from a day until another, eight of ten paid, made by the decisions of the app. The same
 * arguments give the same book. `onDone` hears every thousandth.
 */
export function largeBook(
  documents: number,
  from: IsoDate,
  until: IsoDate,
  seed: number,
  onDone: (done: number) => void = () => undefined,
): BookContent {
  const book = new LargeBook(from, seed);
  book.begin(Math.max(3, Math.ceil(documents / PER_CUSTOMER)));
  const customers = book.customers();
  const days = daysBetween(from, until);
  for (let i = 0; i < documents; i++) {
    const day = addDays(from, Math.floor((i * days) / documents));
    book.invoice(i, customers, day);
    book.payOldest(Math.ceil((documents / days) * 30), day);
    if ((i + 1) % 1000 === 0) onDone(i + 1);
  }
  return book.content();
}
