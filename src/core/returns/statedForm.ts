import type { Minor } from '@/core/kernel/money';

/** An amount that other books feed into a box, or an adjustment. */
export interface TypedBox {
  readonly box: string;
  /** In the currency of the return. */
  readonly amount: Minor;
  /** Where it comes from, or why. */
  readonly words: string;
  /** Code of the account that it is posted against as the return is filed; empty for none. */
  readonly account: string;
}

/** A box as the form states it. */
export interface StatedBox {
  readonly box: string;
  readonly words: string;
  readonly amount: Minor;
}

/** A form filled in, in the currency of the return. */
export interface StatedForm {
  readonly id: string;
  readonly title: string;
  readonly boxes: readonly StatedBox[];
  readonly due: Minor;
}
