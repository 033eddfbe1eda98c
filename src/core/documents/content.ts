import type { Currency } from '@/core/kernel/currency';
import type { IsoDate } from '@/core/kernel/date';
import { type Decimal, decimal } from '@/core/kernel/decimal';
import type { Minor } from '@/core/kernel/money';
import type { Address } from '@/core/parties/address';
import type { Endpoint } from '@/core/parties/endpoint';
import type { CalcInput, CalcLine, CalcResult, CalcTax, Category, PriceMode } from '@/core/tax/calcTypes';
import { calculate } from '@/core/tax/calculate';
import type { Reason } from '@/core/tax/determine';

export type DocumentKind = 'invoice' | 'credit-note';

/** The seller as it was on the day of issue. */
export interface FrozenSeller {
  readonly name: string;
  readonly address: Address;
  readonly legalId: string;
  readonly email: string;
  readonly phone: string;
  readonly taxNumber: string;
  readonly iban: string;
  readonly bic: string;
  readonly endpoint: Endpoint;
}

/** The customer as it was on the day of issue. */
export interface FrozenBuyer {
  readonly name: string;
  readonly address: Address;
  readonly email: string;
  readonly taxNumber: string;
  readonly endpoint: Endpoint;
}

/** A tax code with the rate that the tax point chose. */
export interface FrozenTax {
  readonly code: string;
  readonly name: string;
  readonly category: Category;
  /** Percent. */
  readonly percent: Decimal;
  readonly since: IsoDate;
  readonly legend: string;
  readonly exemptionCode: string;
}

export interface ContentLine {
  readonly id: string;
  readonly description: string;
  readonly quantity: Decimal;
  readonly unit: string;
  readonly unitPrice: Decimal;
  readonly discount?: CalcLine['discount'];
  readonly tax: string;
  readonly taxByHand: boolean;
  readonly account: string;
  readonly trail: readonly Reason[];
}

/**
 * Everything a document says, frozen at issue and sealed. A credit note holds the quantities of the
 * invoice it takes back, not negative ones; `signOf` says which way it counts.
 */
export interface Content {
  readonly kind: DocumentKind;
  readonly number: string;
  readonly registrationId: string;
  readonly customerId: string;
  readonly issueDate: IsoDate;
  readonly taxPoint: IsoDate;
  readonly dueDate: IsoDate;
  readonly currency: Currency;
  readonly priceMode: PriceMode;
  readonly seller: FrozenSeller;
  readonly buyer: FrozenBuyer;
  readonly buyerReference: string;
  readonly orderNumber: string;
  readonly note: string;
  readonly taxes: readonly FrozenTax[];
  readonly lines: readonly ContentLine[];
  /** The invoice a credit note takes back, and why. */
  readonly corrects?: { readonly documentId: string; readonly number: string; readonly issueDate: IsoDate };
  readonly reason?: string;
}

/** Invoices count up, credit notes down, in entries and returns. */
export function signOf(kind: DocumentKind): 1n | -1n {
  return kind === 'invoice' ? 1n : -1n;
}

/** An amount of the document, signed as it counts in entries and returns. */
export function signed(content: Pick<Content, 'kind'>, amount: Minor): Minor {
  return (signOf(content.kind) * amount) as Minor;
}

function calcTax(tax: FrozenTax): CalcTax {
  return {
    category: tax.category,
    components: [{ id: tax.code, rate: decimal(tax.percent) }],
  };
}

/** The engine's input for a document: half-up, rounded per document, as EN 16931 needs. */
export function calcInputOf(content: Pick<Content, 'currency' | 'priceMode' | 'taxes' | 'lines'>): CalcInput {
  return {
    currency: content.currency,
    priceMode: content.priceMode,
    rounding: { mode: 'half-up', level: 'document' },
    taxes: Object.fromEntries(content.taxes.map((tax) => [tax.code, calcTax(tax)])),
    lines: content.lines.map(({ id, quantity, unitPrice, discount, tax }) => ({
      id,
      quantity,
      unitPrice,
      tax,
      ...(discount && { discount }),
    })),
    adjustments: [],
    overrides: [],
    withholding: [],
  };
}

/** The figures of a document, computed from its content alone. */
export function figuresOf(content: Content): CalcResult {
  return calculate(calcInputOf(content));
}
