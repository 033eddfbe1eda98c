import type { Decimal } from '@/core/kernel/decimal';
import type { Category } from '@/core/tax/calcTypes';

/**
 * The semantic model of EN 16931-1, as far as our documents fill it. Names are ours; each comment
 * gives the business term (BT) or group (BG). Amounts are decimals with the currency's decimals.
 */
export interface EInvoice {
  /** BT-1 */
  readonly number: string;
  /** BT-2, ISO date */
  readonly issueDate: string;
  /** BT-3, UNTDID 1001: 380 invoice, 381 credit note */
  readonly typeCode: '380' | '381';
  /** BT-5, ISO 4217 */
  readonly currency: string;
  /** BT-7 */
  readonly taxPointDate: string;
  /** BT-9 */
  readonly dueDate: string;
  /** BT-10 */
  readonly buyerReference: string;
  /** BT-13 */
  readonly orderReference: string;
  /** BT-22 */
  readonly note: string;
  /** BT-24 */
  readonly specification: string;
  /** BT-23 */
  readonly process: string;
  /** BG-3: BT-25, BT-26 */
  readonly preceding?: { readonly number: string; readonly issueDate: string };
  /** BG-4 */
  readonly seller: EParty;
  /** BG-7 */
  readonly buyer: EParty;
  /** BG-16, BG-17; null when no account is known */
  readonly payment: EPayment | null;
  /** BT-20 */
  readonly terms: string;
  /** BG-22 */
  readonly totals: ETotals;
  /** BG-20, BG-21 */
  readonly adjustments: readonly EAdjustment[];
  /** BT-6 and BT-111: the tax in home currency, where the document is in another; else null */
  readonly taxInHome: { readonly currency: string; readonly tax: Decimal } | null;
  /** BG-23 */
  readonly breakdown: readonly EBreakdown[];
  /** BG-25 */
  readonly lines: readonly ELine[];
}

export interface EParty {
  /** BT-27, BT-44 */
  readonly name: string;
  /** BT-31, BT-48 */
  readonly taxNumber: string;
  /** BT-30 */
  readonly legalId: string;
  /** BT-34, BT-49 with the scheme of the EAS list; null when none */
  readonly endpoint: { readonly scheme: string; readonly id: string } | null;
  /** BG-5, BG-8 */
  readonly address: {
    readonly street: string;
    readonly extra: string;
    readonly city: string;
    readonly region: string;
    readonly postalCode: string;
    readonly country: string;
  };
  /** BG-6, BG-9 */
  readonly phone: string;
  readonly email: string;
}

export interface EPayment {
  /** BT-81, UNTDID 4461: 58 SEPA credit transfer, 30 credit transfer */
  readonly means: '30' | '58';
  /** BT-83 */
  readonly remittance: string;
  /** BT-84 */
  readonly iban: string;
  /** BT-85 */
  readonly accountName: string;
  /** BT-86 */
  readonly bic: string;
}

export interface ETotals {
  /** BT-106 */
  readonly lineNet: Decimal;
  /** BT-107 */
  readonly allowances: Decimal;
  /** BT-108 */
  readonly charges: Decimal;
  /** BT-109 */
  readonly withoutTax: Decimal;
  /** BT-110 */
  readonly tax: Decimal;
  /** BT-112 */
  readonly withTax: Decimal;
  /** BT-113 */
  readonly prepaid: Decimal;
  /** BT-114 */
  readonly rounding: Decimal;
  /** BT-115 */
  readonly payable: Decimal;
}

/** An allowance or charge on the document, as far as it falls on one category and rate. */
export interface EAdjustment {
  readonly charge: boolean;
  /** BT-92, BT-99; above zero */
  readonly amount: Decimal;
  /** BT-97, BT-104 */
  readonly reason: string;
  /** BT-95, BT-102 */
  readonly category: Category;
  /** BT-96, BT-103 */
  readonly percent: Decimal;
}

export interface EBreakdown {
  /** BT-116 */
  readonly base: Decimal;
  /** BT-117 */
  readonly tax: Decimal;
  /** BT-118 */
  readonly category: Category;
  /** BT-119 */
  readonly percent: Decimal;
  /** BT-120 */
  readonly exemptionReason: string;
  /** BT-121 */
  readonly exemptionCode: string;
}

export interface ELine {
  /** BT-126 */
  readonly id: string;
  /** BT-129 */
  readonly quantity: Decimal;
  /** BT-130, UN/ECE Rec 20 */
  readonly unit: string;
  /** BT-131 */
  readonly net: Decimal;
  /** BG-27: BT-136; null when none */
  readonly allowance: Decimal | null;
  /** BT-146 */
  readonly price: Decimal;
  /** BT-149 */
  readonly baseQuantity: Decimal;
  /** BT-151 */
  readonly category: Category;
  /** BT-152 */
  readonly percent: Decimal;
  /** BT-153 */
  readonly name: string;
  /** BT-154 */
  readonly description: string;
}
