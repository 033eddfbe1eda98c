import type { Address } from '@/core/parties/address';
import type { PaymentMethod } from '@/core/parties/paymentMethod';
import type { PriceMode } from '@/core/tax/calcTypes';
import type { SupplyKind } from '@/core/tax/decisionTable';
import type { EarlierInvoice, FrozenTax } from './content';
import type { Deferral } from './deferral';
import type { DraftKind } from './kinds';

/**
 * A line as it is being written. Figures are kept as typed, so that a half-filled line survives;
 * `readLine` turns them into numbers.
 */
export interface DraftLine {
  readonly id: string;
  readonly itemId: string;
  /** First line is the title, further lines print below it. */
  readonly description: string;
  readonly quantity: string;
  readonly unit: string;
  readonly price: string;
  /** `10%` or an amount; empty for none. */
  readonly discount: string;
  /** When its revenue belongs, where that is not the day of the invoice; its fields as typed. */
  readonly deferral?: Deferral;
  /** Customs or service code of the item; missing for none. */
  readonly itemCode?: string;
  /** Class and kind of what is supplied; taken from the item. */
  readonly taxClass: string;
  readonly supply: SupplyKind;
  /** What the line carries: a code, or the key of a place's stack. */
  readonly taxCode: string;
  /** True when the bookkeeper chose the tax; determination then leaves it alone. */
  readonly taxByHand: boolean;
  /** How the price came from another one, for Workings; empty when it was typed. */
  readonly priceFrom: string;
  readonly account: string;
  /** ISO date of this supply; empty where it is the document's. */
  readonly supplied: string;
  /** Line of the quote that it bills, or empty. */
  readonly of: string;
  /** The advance invoice that it takes off; missing for all others. */
  readonly takesOff?: EarlierInvoice;
}

/** An allowance or charge on the whole document, as it is being written. */
export interface DraftAdjustment {
  readonly id: string;
  readonly kind: 'allowance' | 'charge';
  readonly text: string;
  /** `10%` of the lines, or an amount. */
  readonly amount: string;
  /** Shared by what the lines carry instead of carrying a tax of its own. */
  readonly spread: boolean;
  readonly taxClass: string;
  readonly supply: SupplyKind;
  readonly taxCode: string;
  readonly taxByHand: boolean;
  readonly account: string;
}

/** A tax figure that is typed instead of computed. */
export interface DraftOverride {
  readonly tax: string;
  readonly family: string;
  readonly amount: string;
  readonly reason: string;
}

/** What a draft came from. */
export interface DraftOrigin {
  /** `stage` bills a part of a quote, `version` replaces one, `correction` an invoice that was credited. */
  readonly how: 'copy' | 'stage' | 'version' | 'correction';
  readonly documentId: string;
  readonly number: string;
  /** `30 %`, `rest`, for a stage. */
  readonly words: string;
  /** Whether a stage bills quantities of the quoted lines, or sums of them. */
  readonly by: 'quantity' | 'sum';
}

/** Rates as they were when the draft was kept; a later change of set-up is pointed out, not applied. */
export interface HeldTaxes {
  readonly taxPoint: string;
  readonly customerId: string;
  readonly taxes: readonly FrozenTax[];
}

/** A document that is not issued yet: free to change, no number, no entries. */
export interface Draft {
  /** Also the id of the document that it becomes. */
  readonly id: string;
  readonly kind: DraftKind;
  readonly origin: DraftOrigin | null;
  /** What belongs together, such as a quote and its invoices, shares this id. */
  readonly familyId: string;
  /** Rises by one with each save; a save over a newer one is refused. */
  readonly revision: number;
  readonly registrationId: string;
  /** True when the bookkeeper chose the registration; else the decision table does. */
  readonly registrationByHand: boolean;
  readonly customerId: string;
  /** Where it goes, when that is not the customer's address. */
  readonly delivery: Address | null;
  /** ISO date. */
  readonly issueDate: string;
  /** ISO date, or empty when the tax point is the issue date. */
  readonly taxPoint: string;
  /** ISO date, first day of a supply that took longer than its tax point; else empty. */
  readonly supplyFrom: string;
  /** ISO date under which it is posted; empty where that is the issue date. */
  readonly accountingDate: string;
  /** ISO date or terms such as `30d`; see `readTerms`. Of a quote how long it holds. */
  readonly due: string;
  /** Currency code; empty for the home currency. */
  readonly currency: string;
  /** Units of the currency for one home unit, as typed; empty for the rate of the tax point. */
  readonly perHome: string;
  readonly priceMode: PriceMode;
  readonly contact: string;
  readonly buyerReference: string;
  readonly orderNumber: string;
  readonly subject: string;
  readonly salesperson: string;
  readonly tags: readonly string[];
  readonly carrier: string;
  readonly tracking: string;
  readonly note: string;
  readonly conditions: string;
  /** For ourselves; never printed. */
  readonly remarks: string;
  readonly styleId: string;
  /** Bank account that it says to pay into; missing or empty for the one of its style or currency. */
  readonly bankAccountId?: string;
  readonly paidBy: PaymentMethod;
  /** The recurring document whose content it is: it is no draft of its own. Missing for all others. */
  readonly recurringId?: string;
  /** The run whose content it is: it is no draft of its own. Missing for all others. */
  readonly runId?: string;
  /** It asks for money before the supply; missing for all others. */
  readonly advance?: boolean;
  readonly lines: readonly DraftLine[];
  readonly adjustments: readonly DraftAdjustment[];
  readonly overrides: readonly DraftOverride[];
  readonly held: HeldTaxes | null;
  /** Instant of the last save. */
  readonly savedAt: string;
  /** Find-as-you-type keys of customer and references. */
  readonly keys: readonly string[];
}

/** Class of a line that names no item. */
export const TYPED_CLASS = 'standard';

/** A line that holds nothing yet; it is not part of the document. */
export function isBlank(line: DraftLine): boolean {
  return line.description.trim() === '' && line.itemId === '' && line.price.trim() === '';
}

export function blankLine(id: string, account: string): DraftLine {
  return {
    id,
    itemId: '',
    description: '',
    quantity: '1',
    unit: 'C62',
    price: '',
    discount: '',
    taxClass: TYPED_CLASS,
    supply: 'goods',
    taxCode: '',
    taxByHand: false,
    priceFrom: '',
    account,
    supplied: '',
    of: '',
  };
}

/** A discount, shared by all lines, or a charge with a tax of its own, without an amount yet. */
export function blankAdjustment(id: string, kind: DraftAdjustment['kind'], account: string): DraftAdjustment {
  return {
    id,
    kind,
    text: kind === 'allowance' ? 'Discount' : 'Freight',
    amount: '',
    spread: kind === 'allowance',
    taxClass: TYPED_CLASS,
    supply: 'goods',
    taxCode: '',
    taxByHand: false,
    account,
  };
}

/** A quote holds for a month unless something else is said. */
export const QUOTE_HOLDS = '1m';

/** A draft that says nothing yet. `issueDate` is an ISO date. */
export function blankDraft(id: string, kind: DraftKind, registrationId: string, issueDate: string): Draft {
  return {
    id,
    kind,
    origin: null,
    familyId: id,
    revision: 0,
    registrationId,
    registrationByHand: false,
    customerId: '',
    delivery: null,
    issueDate,
    taxPoint: '',
    supplyFrom: '',
    accountingDate: '',
    due: { invoice: '30d', quote: QUOTE_HOLDS, 'cash-sale': '0d' }[kind],
    currency: '',
    perHome: '',
    priceMode: kind === 'cash-sale' ? 'gross' : 'net',
    contact: '',
    buyerReference: '',
    orderNumber: '',
    subject: '',
    salesperson: '',
    tags: [],
    carrier: '',
    tracking: '',
    note: '',
    conditions: '',
    remarks: '',
    styleId: '',
    paidBy: 'cash',
    lines: [],
    adjustments: [],
    overrides: [],
    held: null,
    savedAt: '',
    keys: [],
  };
}

/** The lines that say something, with their place in the draft. */
export function writtenLines(draft: Draft): readonly { line: DraftLine; index: number }[] {
  return draft.lines.map((line, index) => ({ line, index })).filter(({ line }) => !isBlank(line));
}
