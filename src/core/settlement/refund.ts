import type { Currency } from '@/core/kernel/currency';
import type { IsoDate } from '@/core/kernel/date';
import type { Minor } from '@/core/kernel/money';
import type { PaymentMethod } from '@/core/parties/paymentMethod';

/** Money given back to a customer: a debt of theirs that one of their credits settles at once, by an allocation. */
export interface Refund {
  readonly id: string;
  readonly number: string;
  readonly customerId: string;
  readonly customerName: string;
  readonly date: IsoDate;
  /** How it was given back. */
  readonly method: PaymentMethod;
  readonly reference: string;
  readonly currency: Currency;
  readonly amount: Minor;
  /** What it was worth in home currency on its day. */
  readonly amountHome: Minor;
  readonly entryId: string;
  /** Null while it stands. */
  readonly undone: { readonly on: IsoDate; readonly at: string; readonly entryId: string } | null;
  readonly recordedAt: string;
}
