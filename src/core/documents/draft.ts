import type { Address } from '@/core/parties/address';
import type { PriceMode } from '@/core/tax/calcTypes';
import type { SupplyKind } from '@/core/tax/decisionTable';
import type { FrozenTax } from './content';

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
}

/** Rates as they were when the draft was kept; a later change of set-up is pointed out, not applied. */
export interface HeldTaxes {
  readonly taxPoint: string;
  readonly customerId: string;
  readonly taxes: readonly FrozenTax[];
}

/** An invoice that is not issued yet: free to change, no number, no entries. */
export interface Draft {
  readonly id: string;
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
  /** ISO date or an offset from the issue date such as `30d`. */
  readonly due: string;
  readonly priceMode: PriceMode;
  readonly buyerReference: string;
  readonly orderNumber: string;
  readonly note: string;
  readonly lines: readonly DraftLine[];
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
  };
}

/** The lines that say something, with their place in the draft. */
export function writtenLines(draft: Draft): readonly { line: DraftLine; index: number }[] {
  return draft.lines.map((line, index) => ({ line, index })).filter(({ line }) => !isBlank(line));
}
