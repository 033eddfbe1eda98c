import type { Currency } from '@/core/kernel/currency';
import type { IsoDate } from '@/core/kernel/date';
import type { Decimal } from '@/core/kernel/decimal';
import type { Minor } from '@/core/kernel/money';
import type { Address } from '@/core/parties/address';
import type { Endpoint } from '@/core/parties/endpoint';
import type { LocalAccount } from '@/core/parties/localAccount';
import type { Mandate } from '@/core/parties/mandate';
import type { PaymentMethod } from '@/core/parties/paymentMethod';
import type { CalcInput, CalcLine, CalcResult, CalcTax, Category, PriceMode } from '@/core/tax/calcTypes';
import { calculate } from '@/core/tax/calculate';
import type { SupplyKind } from '@/core/tax/decisionTable';
import type { Reason } from '@/core/tax/determine';
import type { RegistrationRounding } from '@/core/tax/registration';
import type { ResolvedComponent } from '@/core/tax/resolve';
import type { WithholdingType } from '@/core/tax/withholding';
import type { Deferral } from './deferral';
import { type DocumentKind, signOf } from './kinds';

/**
 * What a document is: a quote posts nothing; a takings entry is a day's till total; an opening item
 * is a debt that was there before the book began.
 */
/** The seller as it was on the day of issue. */
export interface FrozenSeller {
  readonly name: string;
  readonly address: Address;
  readonly legalId: string;
  readonly email: string;
  readonly phone: string;
  readonly taxNumber: string;
  /** Country of the registration the number is of, ISO 3166-1; missing in books of version 7 and before. */
  readonly taxCountry?: string;
  readonly iban: string;
  readonly bic: string;
  /** The account by what banks without IBAN call it; missing for none. */
  readonly local?: LocalAccount;
  readonly endpoint: Endpoint;
}

/** The customer as it was on the day of issue. */
export interface FrozenBuyer {
  readonly name: string;
  readonly address: Address;
  readonly email: string;
  readonly taxNumber: string;
  readonly endpoint: Endpoint;
  /** ISO 639-1 of the language it is written in; English where it is missing, as in books of version 2. */
  readonly language?: string;
  /** The person it goes to, where one is named. */
  readonly contact?: string;
}

/** A tax code, or the stack of a place, with the rates that the tax point chose. */
export interface FrozenTax {
  /** Id of the code, or the key of a place's stack. */
  readonly code: string;
  readonly name: string;
  readonly category: Category;
  /** Percent, all components together. */
  readonly percent: Decimal;
  readonly since: IsoDate;
  readonly legend: string;
  readonly exemptionCode: string;
  readonly boxBase?: string;
  readonly boxTax?: string;
  /** Missing in books of version 1, where a code had one rate and no jurisdiction. */
  readonly components?: readonly ResolvedComponent[];
}

/** A withholding type with the rate that the tax point chose. */
export interface FrozenWithholding extends Pick<WithholdingType, 'id' | 'name' | 'base' | 'when' | 'certificate'> {
  readonly percent: Decimal;
  readonly since: IsoDate;
  /** Base below which nothing is withheld, in currency units; `0` for none. */
  readonly threshold: Decimal;
  /** What is withheld, where it is a share of another document's, and the same in home currency; currency units. */
  readonly amount?: Decimal;
  readonly amountHome?: Decimal;
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
  /** In books of version 1; later ones keep trails once for lines that share them. */
  readonly trail?: readonly Reason[];
  /** Position in `Content.trails`. */
  readonly trailOf?: number;
  /** How the price came from another one; missing when it was typed. */
  readonly priceFrom?: string;
  /** What the decision table asked of it; missing in books of version 2. */
  readonly taxClass?: string;
  readonly supply?: SupplyKind;
  /** Item it was taken from, for sales by item. */
  readonly itemId?: string;
  /** When its revenue belongs; missing where that is the day of the document. */
  readonly deferral?: Deferral;
  /** Customs or service code of the item, such as HS, HSN or SAC. */
  readonly itemCode?: string;
  /** Day of this supply, where it is not the document's. */
  readonly supplied?: IsoDate;
  /** Line of the quote that it bills, or of the invoice that it takes back. */
  readonly of?: string;
  /** The advance invoice that it takes off; its value is below zero. */
  readonly takesOff?: EarlierInvoice;
}

/** An invoice that another one goes back to (BG-3). */
export interface EarlierInvoice {
  readonly documentId: string;
  readonly number: string;
  readonly issueDate: IsoDate;
  /** Where it is not the day it was issued. */
  readonly taxPoint?: IsoDate;
}

/** An allowance or charge on the whole document. */
export interface ContentAdjustment {
  readonly id: string;
  readonly kind: 'allowance' | 'charge';
  readonly text: string;
  readonly percent?: Decimal;
  /** Currency units. */
  readonly amount?: Decimal;
  /** Its own tax; missing where it is spread over what the lines carry. */
  readonly tax?: string;
  readonly account: string;
  /** Allowance or charge of the invoice that it takes back; books before version 5 keep its id instead. */
  readonly of?: string;
}

/** A tax that was typed instead of computed, and why. */
export interface TaxOverride {
  readonly tax: string;
  readonly family: string;
  /** Currency units. */
  readonly amount: Decimal;
  readonly reason: string;
  /** How it falls on the components of the family; see `CalcOverride`. */
  readonly parts?: readonly Decimal[];
}

/** Net and taxes of a code in another currency than the document's, in its units. */
export interface CountedShare {
  readonly net: Decimal;
  /** In the order of the code's components. */
  readonly components: readonly Decimal[];
}

/**
 * What a part credit takes of one tax code of its invoice, in every figure that counts. Computed anew
 * each part may round by a cent, and all parts would not come to the invoice; so its share is kept.
 */
export interface CountedPart {
  readonly tax: string;
  /** Net by account, in the document's currency and, where that is another, in home currency. */
  readonly accounts: readonly { readonly account: string; readonly net: Decimal; readonly home?: Decimal }[];
  readonly home?: CountedShare;
  readonly filing?: CountedShare;
}

/** The exchange rate that a document in foreign currency counts in the books with. */
export interface HomeRate {
  readonly currency: Currency;
  /** Home units for one unit of the document's currency. */
  readonly rate: Decimal;
  /** Units of the document's currency for one home unit, as rates are published. */
  readonly perHome: Decimal;
  /** Day of the rate. */
  readonly on: IsoDate;
  /** Where it is from; empty when it was typed. */
  readonly source: string;
}

/** A part of what is payable with its own due date; parts add up to 100 %. */
export interface Instalment {
  readonly percent: Decimal;
  readonly due: IsoDate;
}

/** A discount for paying early. */
export interface SettlementDiscount {
  readonly percent: Decimal;
  readonly until: IsoDate;
}

/** A collection from the customer's account. */
export interface DirectDebit extends Mandate {
  /** Our creditor identifier; empty for none. */
  readonly creditorId: string;
}

/** A stage of the same quote that was billed before. */
export interface EarlierStage {
  readonly number: string;
  readonly issueDate: IsoDate;
}

/** The quote that a document bills a part of. */
export interface StageOf {
  readonly documentId: string;
  readonly number: string;
  /** `30 %`, `rest`; printed with the number. */
  readonly words: string;
  /** Whether its lines bill quantities of the quoted ones, or sums of them. */
  readonly by: 'quantity' | 'sum';
  /** In the order in which they were issued; missing in books of version 3 and before. */
  readonly before?: readonly EarlierStage[];
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
  /** When it is to be paid; of a quote the last day it holds. */
  readonly dueDate: IsoDate;
  readonly instalments?: readonly Instalment[];
  readonly settlement?: SettlementDiscount;
  /** First day of a supply that took longer; its last day is the tax point. */
  readonly supplyFrom?: IsoDate;
  readonly currency: Currency;
  /** Missing where the document is in the home currency. */
  readonly home?: HomeRate;
  readonly priceMode: PriceMode;
  readonly seller: FrozenSeller;
  readonly buyer: FrozenBuyer;
  /** Where it goes, when that is not the buyer's address. */
  readonly delivery?: Address;
  readonly carrier?: string;
  readonly tracking?: string;
  readonly buyerReference: string;
  readonly orderNumber: string;
  readonly subject?: string;
  readonly salesperson?: string;
  readonly note: string;
  /** Conditions that print below the totals. */
  readonly conditions?: string;
  /** Address at which it is paid by card; missing for none. */
  readonly payLink?: string;
  /** An invoice for money before the supply (UNTDID 1001: 386). */
  readonly advance?: true;
  /** How a cash sale was paid. */
  readonly paidBy?: PaymentMethod;
  /** `amount`: what rounding adds, where it is a share of another document's. */
  readonly rounding?: RegistrationRounding & { readonly amount?: Decimal };
  /** Content rules it was issued under; see `checkPackOf`. */
  readonly checks?: string;
  /** Missing where tax falls due on issue. */
  readonly basis?: 'on-payment';
  readonly withholding?: readonly FrozenWithholding[];
  /** Currency of the return, and its units for one unit of the document's, where they differ. */
  readonly filing?: { readonly currency: Currency; readonly rate: Decimal };
  /** Why each line carries its tax: what the decision table said. */
  readonly trails?: readonly (readonly Reason[])[];
  readonly taxes: readonly FrozenTax[];
  readonly lines: readonly ContentLine[];
  readonly adjustments?: readonly ContentAdjustment[];
  readonly overrides?: readonly TaxOverride[];
  readonly stage?: StageOf;
  /** How it is collected, where the customer has given a mandate. */
  readonly debit?: DirectDebit;
  /** Version of a quote, from 1. */
  readonly version?: number;
  /** The invoice a credit note takes back, and why. */
  readonly corrects?: EarlierInvoice;
  readonly reason?: string;
  /** Of a credit note that takes back a part; see `CountedPart`. */
  readonly counted?: readonly CountedPart[];
}

/** An amount of the document, signed as it counts in entries and returns. */
export function signed(content: Pick<Content, 'kind'>, amount: Minor): Minor {
  return (signOf(content.kind) * amount) as Minor;
}

const NO_RATE = '0' as Decimal;

function calcTax(tax: FrozenTax): CalcTax {
  const { category, code, percent, components } = tax;
  if (components === undefined) return { category, components: [{ id: code, rate: percent }] };
  return {
    category,
    components: components.map((component) => ({
      id: component.taxId,
      family: component.family,
      compound: component.compound,
      ...(component.perUnit === '' ? { rate: component.percent || NO_RATE } : { perUnit: component.perUnit }),
    })),
  };
}

/** What a document's figures follow from. */
export type Computed = Pick<
  Content,
  | 'currency'
  | 'priceMode'
  | 'taxes'
  | 'lines'
  | 'adjustments'
  | 'overrides'
  | 'rounding'
  | 'withholding'
  | 'home'
  | 'counted'
>;

/** The engine's input for a document; half-up and per document, as EN 16931 needs, unless the registration says else. */
export function calcInputOf(content: Computed): CalcInput {
  const { mode = 'half-up', level = 'document', cashStep = '', amount: rounded } = content.rounding ?? {};
  return {
    currency: content.currency,
    priceMode: content.priceMode,
    rounding: {
      mode,
      level,
      ...(cashStep !== '' && { cashStep: cashStep as Decimal }),
      ...(rounded !== undefined && { amount: rounded }),
    },
    taxes: Object.fromEntries(content.taxes.map((tax) => [tax.code, calcTax(tax)])),
    lines: content.lines.map(({ id, quantity, unitPrice, discount, tax }) => ({
      id,
      quantity,
      unitPrice,
      tax,
      ...(discount && { discount }),
    })),
    adjustments: (content.adjustments ?? []).map(({ id, kind, percent, amount, tax }) => ({
      id,
      kind,
      ...(percent !== undefined && { percent }),
      ...(amount !== undefined && { amount }),
      ...(tax !== undefined && { tax }),
    })),
    overrides: content.overrides ?? [],
    withholding: (content.withholding ?? []).map(({ id, base, percent, threshold, amount }) => ({
      id,
      base,
      rate: percent,
      threshold,
      ...(amount !== undefined && { amount }),
    })),
    ...(content.home && { home: { currency: content.home.currency, rate: content.home.rate } }),
  };
}

/** The figures of a document, computed from its content alone. */
export function figuresOf(content: Content): CalcResult {
  return calculate(calcInputOf(content));
}

/** Why a line carries its tax. */
export function trailOf(content: Pick<Content, 'trails'>, line: ContentLine): readonly Reason[] {
  return line.trail ?? content.trails?.[line.trailOf ?? 0] ?? [];
}
