import { type Minor, total } from '@/core/kernel/money';
import type { PaymentMethod } from '@/core/parties/paymentMethod';
import type { Settling } from '@/core/settlement/receipt';
import type { ReceiptInput } from './recordReceipt';

interface OnePart extends Omit<ReceiptInput, 'parts' | 'to'> {
  readonly method: PaymentMethod;
  readonly allocations: readonly Settling[];
  /** Money received, where it is more than it settles: the rest is kept on account. */
  readonly sum?: Minor;
}

/** A receipt of one part whose money alone settles documents. */
export function onePart({ method, allocations, sum, ...head }: OnePart): ReceiptInput {
  return {
    ...head,
    parts: [{ method, amount: sum ?? total(allocations.map((one) => one.amount)) }],
    to: allocations.map(({ documentId, number, amount }) => ({ documentId, number, money: amount })),
  };
}
