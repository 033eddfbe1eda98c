import type { Currency } from '@/core/kernel/currency';
import type { Decimal } from '@/core/kernel/decimal';
import type { Minor } from '@/core/kernel/money';
import type { RoundingMode } from '@/core/kernel/rounding';

/** Whether prices leave the tax out (`net`) or hold it (`gross`). */
export type PriceMode = 'net' | 'gross';

/** VAT category letters of EN 16931 (UNTDID 5305 subset). */
export type Category = 'S' | 'Z' | 'E' | 'AE' | 'K' | 'G' | 'O' | 'L' | 'M';

/** Taxes that one code may charge: each on top of the others makes the exact figures longer. */
export const MOST_COMPONENTS = 20;

export const CATEGORIES: readonly Category[] = ['S', 'Z', 'E', 'AE', 'K', 'G', 'O', 'L', 'M'];

/** One tax inside a code: a percentage or an amount per unit of quantity, never both. */
export interface Component {
  readonly id: string;
  /** Components of one family are rounded together; by default each is its own. */
  readonly family?: string;
  /** Percent: `23` is 23 %. */
  readonly rate?: Decimal;
  /** Charged on the base plus all taxes before it in the list. */
  readonly compound?: boolean;
  /** Currency units (not minor units) for each unit of quantity. */
  readonly perUnit?: Decimal;
}

export interface CalcTax {
  readonly category: Category;
  readonly components: readonly Component[];
}

/** A discount by percent, or by an amount in currency units. */
export type Discount = { readonly percent: Decimal } | { readonly amount: Decimal };

export interface CalcLine {
  readonly id: string;
  readonly quantity: Decimal;
  /** Currency units, up to 10 decimals. */
  readonly unitPrice: Decimal;
  /** Quantity the price is for; 1 unless given. Never zero. */
  readonly baseQuantity?: Decimal;
  readonly discount?: Discount;
  /** Key into `CalcInput.taxes`. */
  readonly tax: string;
}

export interface CalcAdjustment {
  readonly id: string;
  readonly kind: 'allowance' | 'charge';
  readonly percent?: Decimal;
  readonly amount?: Decimal;
  /** Without a code the adjustment is spread over all groups. */
  readonly tax?: string;
}

export interface CalcOverride {
  readonly tax: string;
  readonly family: string;
  readonly amount: Decimal;
  readonly reason: string;
  /** How the amount falls on the components of the family, in their order; by their own taxes where it is missing. */
  readonly parts?: readonly Decimal[];
}

export interface CalcWithholding {
  readonly id: string;
  readonly base: 'net' | 'gross' | 'tax';
  /** Percent. */
  readonly rate: Decimal;
  readonly threshold?: Decimal;
  /** Withheld whatever the base comes to, as where a credit note takes back its share. */
  readonly amount?: Decimal;
}

/** What the engine computes on. Built by `readCalcInput` or by the documents room; both validate. */
export interface CalcInput {
  readonly currency: Currency;
  readonly priceMode: PriceMode;
  readonly rounding: {
    readonly mode: RoundingMode;
    readonly level: 'document' | 'line';
    /** Smallest coin, in currency units: `0.05`. */
    readonly cashStep?: Decimal;
    /** What rounding adds, where that is known already: a credit note takes back its share. */
    readonly amount?: Decimal;
  };
  readonly taxes: Readonly<Record<string, CalcTax>>;
  readonly lines: readonly CalcLine[];
  readonly adjustments: readonly CalcAdjustment[];
  readonly overrides: readonly CalcOverride[];
  readonly prepaid?: Decimal;
  readonly withholding: readonly CalcWithholding[];
  /** `rate` is home units for one document unit. */
  readonly home?: { readonly currency: Currency; readonly rate: Decimal };
}

/** Net, tax and gross of anything; gross = net + taxAmount always. */
export interface Figures {
  readonly net: Minor;
  readonly taxAmount: Minor;
  readonly gross: Minor;
}

export interface LineResult extends Figures {
  readonly id: string;
  readonly tax: string;
  readonly extension: Minor;
  readonly discount: Minor;
  /** Extension less discount: net in net mode, gross in gross mode. */
  readonly value: Minor;
}

/** The part of an adjustment that falls on one group; allowances are negative. */
export interface AdjustmentResult extends Figures {
  readonly id: string;
  readonly kind: 'allowance' | 'charge';
  readonly tax: string;
  readonly value: Minor;
}

export interface GroupResult extends Figures {
  readonly tax: string;
  readonly components: readonly { readonly id: string; readonly family: string; readonly amount: Minor }[];
}

export interface HomeResult extends Figures {
  readonly currency: Currency;
  readonly groups: readonly {
    readonly tax: string;
    readonly taxAmount: Minor;
    readonly families: readonly { readonly family: string; readonly amount: Minor }[];
  }[];
  /** Net of each line, in the order of the lines. */
  readonly lineNets: readonly Minor[];
  readonly adjustmentNets: readonly Minor[];
}

/** All amounts in minor units of the input's currency, those under `home` in the home currency's. */
export interface CalcResult {
  readonly currency: Currency;
  readonly lines: readonly LineResult[];
  readonly adjustments: readonly AdjustmentResult[];
  readonly groups: readonly GroupResult[];
  readonly totals: Figures & {
    readonly lineValue: Minor;
    readonly allowances: Minor;
    readonly charges: Minor;
    readonly rounding: Minor;
    readonly prepaid: Minor;
    readonly payable: Minor;
    readonly withheld: Minor;
    readonly expectedCash: Minor;
  };
  readonly withholding: readonly { readonly id: string; readonly base: Minor; readonly amount: Minor }[];
  readonly home?: HomeResult;
}
