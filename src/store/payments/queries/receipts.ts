import Dexie from 'dexie';
import type { IsoDate } from '@/core/kernel/date';
import { wordsIn } from '@/core/kernel/words';
import type { PaymentMethod } from '@/core/parties/paymentMethod';
import { isPostDated, type Receipt } from '@/core/settlement/receipt';
import type { BookDb } from '../../schema';

/** How a receipt stands, for a list of them. */
export type ReceiptStanding = 'used' | 'on-account' | 'post-dated' | 'dishonoured';

/** What a list of receipts is narrowed to; empty fields narrow nothing. */
export interface ReceiptFilter {
  /** Words of number, customer or reference, or parts of them. */
  readonly text: string;
  readonly from: IsoDate | '';
  readonly until: IsoDate | '';
  readonly method: PaymentMethod | '';
  readonly standing: ReceiptStanding | '';
}

/** How a receipt stands on a day. */
export function standingOf(receipt: Receipt, on: IsoDate): ReceiptStanding {
  if (receipt.dishonoured !== null) return 'dishonoured';
  if (isPostDated(receipt, on)) return 'post-dated';
  return receipt.isOpen === 1 ? 'on-account' : 'used';
}

/** Receipts that a filter lets through, newest first, `limit` at most; read by their days, so that a page reads no more. */
export function listReceipts(db: BookDb, filter: ReceiptFilter, on: IsoDate, limit: number): Promise<Receipt[]> {
  const { text, from, until, method, standing } = filter;
  const words = wordsIn([text]);
  return db.receipts
    .where('[date+number]')
    .between([from || Dexie.minKey, Dexie.minKey], [until || Dexie.maxKey, Dexie.maxKey])
    .reverse()
    .filter(
      (receipt) =>
        words.every((word) => receipt.keys.some((key) => key.includes(word))) &&
        (method === '' || receipt.parts.some((part) => part.method === method)) &&
        (standing === '' || standingOf(receipt, on) === standing),
    )
    .limit(limit)
    .toArray();
}
