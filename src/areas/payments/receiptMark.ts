import type { ReceiptStanding } from '@/store/payments/queries/receipts';
import type { MarkKind } from '@/ui/Mark';

/** Mark and word of how a receipt stands. */
export const RECEIPT_MARKS: Readonly<Record<ReceiptStanding, readonly [MarkKind, string]>> = {
  used: ['paid', 'used'],
  'on-account': ['half', 'on account'],
  'post-dated': ['open', 'post-dated'],
  dishonoured: ['cancelled', 'was returned unpaid'],
};
