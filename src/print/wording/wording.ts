import type { DocumentKind } from '@/core/documents/kinds';
import type { Category } from '@/core/tax/calcTypes';

/** What a printed document is: itself, a note that goes with the goods, or a receipt. */
export type Variant = 'document' | 'delivery-note' | 'receipt';

/** Everything a printed document says in one language. `{name}` stands for what is filled in. */
export interface Wording {
  readonly language: string;
  /** Full names of the months, January first. */
  readonly months: readonly string[];
  /** `{day} {month} {year}`. */
  readonly date: string;
  /** Marks of thousands and decimals. */
  readonly thousands: string;
  readonly decimal: string;
  readonly titles: Readonly<Record<DocumentKind, string>>;
  readonly attachments: string;
  /** Across each page of a draft. */
  readonly draft: string;
  /** Across each page of a cancelled document, and the line that says when and why. */
  readonly cancelled: string;
  readonly cancelledOn: string;
  readonly cashSale: string;
  readonly deliveryNote: string;
  readonly receipt: string;
  readonly number: string;
  readonly version: string;
  readonly issueDate: string;
  readonly taxPoint: string;
  readonly supplied: string;
  readonly suppliedSpan: string;
  readonly due: string;
  readonly holdsUntil: string;
  readonly credits: string;
  readonly creditsOf: string;
  readonly reason: string;
  readonly yourReference: string;
  readonly orderNumber: string;
  readonly subject: string;
  readonly salesperson: string;
  readonly attention: string;
  readonly quote: string;
  readonly stage: string;
  readonly deliveredTo: string;
  readonly carrier: string;
  readonly tracking: string;
  readonly item: string;
  readonly itemCode: string;
  readonly quantity: string;
  readonly price: string;
  readonly less: string;
  readonly tax: string;
  readonly net: string;
  readonly withTax: string;
  /** `{tax} on {base}`. */
  readonly taxOn: string;
  readonly rounded: string;
  readonly total: string;
  readonly expected: string;
  readonly taxInHome: string;
  readonly instalment: string;
  readonly settlement: string;
  readonly payTo: string;
  readonly payByCard: string;
  readonly account: string;
  /** Heads of a direct debit, and when it is taken from where. */
  readonly collected: string;
  readonly collectedOn: string;
  readonly mandate: string;
  readonly creditorId: string;
  readonly reference: string;
  readonly paidBy: string;
  readonly methods: Readonly<Record<string, string>>;
  readonly scan: string;
  readonly slip: string;
  readonly payer: string;
  /** What a tax number is called, and one of the union’s. */
  readonly taxNumber: string;
  readonly vatNumber: string;
  /** The tax of the union. */
  readonly vat: string;
  /** Supplies that nothing is charged on, by category of EN 16931. */
  readonly categories: Readonly<Record<Category, string>>;
  readonly companyNumber: string;
  readonly carried: string;
  readonly brought: string;
  readonly page: string;
  readonly seal: string;
  readonly units: Readonly<Record<string, string>>;
  /** Words of units beside a number that is not one; those of `units` where they do not change. */
  readonly unitsOfMany: Readonly<Record<string, string>>;
  /** Title of an invoice for money before the supply. */
  readonly advance: string;
  /** Texts that discounts and charges begin with; others print as they were typed. */
  readonly adjustments: Readonly<Record<string, string>>;
  /** How the first of a month is written, where it is not by its number. */
  readonly first?: string;
}

/** Fills `{name}` in a text. */
export function fill(text: string, values: Readonly<Record<string, string>>): string {
  return text.replace(/\{(\w+)\}/g, (_, name: string) => values[name] ?? '');
}
