import type { Draft } from '@/core/documents/draft';
import { wordsOf } from '@/core/kernel/words';
import type { BookDb } from '../../schema';

type Ordered = Pick<Draft, 'id' | 'familyId' | 'customerId' | 'orderNumber'>;

/**
 * Number of an invoice for the same customer with the same order number; empty where there is none. What belongs to the
 * draft's own family, such as its quote and other stages of it, is the same order by right.
 */
export async function orderUsedBefore(db: BookDb, { familyId, customerId, orderNumber }: Ordered): Promise<string> {
  const order = orderNumber.trim();
  const rarest = wordsOf(order).reduce((a, b) => (b.length > a.length ? b : a), '');
  if (rarest === '' || customerId === '') return '';
  const same = await db.documents
    .where('words')
    .equals(rarest)
    .filter(
      (document) =>
        document.kind === 'invoice' &&
        document.customerId === customerId &&
        document.familyId !== familyId &&
        // An advance and its final invoice are of one order.
        document.content.advance !== true &&
        // What was taken back is free to be invoiced anew.
        document.cancelled === null &&
        document.state !== 'credited' &&
        document.content.orderNumber === order,
    )
    .first();
  return same?.number ?? '';
}
