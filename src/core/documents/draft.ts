import type { PriceMode } from '@/core/tax/calcTypes';

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
  /** Code the line carries. */
  readonly taxCode: string;
  /** True when the bookkeeper chose the code; determination then leaves it alone. */
  readonly taxByHand: boolean;
  readonly account: string;
}

/** An invoice that is not issued yet: free to change, no number, no entries. */
export interface Draft {
  readonly id: string;
  /** Rises by one with each save; a save over a newer one is refused. */
  readonly revision: number;
  readonly registrationId: string;
  readonly customerId: string;
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
  /** Instant of the last save. */
  readonly savedAt: string;
  /** Find-as-you-type keys of customer and references. */
  readonly keys: readonly string[];
}

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
    taxCode: '',
    taxByHand: false,
    account,
  };
}
