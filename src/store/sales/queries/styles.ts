import type { IssuedDocument } from '@/core/documents/issued';
import { styleFor } from '@/core/documents/look';
import type { DocumentStyle } from '@/core/documents/style';
import type { BookDb } from '../../schema';

type Printed = Pick<IssuedDocument, 'styleId' | 'customerId'> & Partial<Pick<IssuedDocument, 'lookId'>>;

/**
 * The style that documents print in: the look they were issued in; of what is not issued its own,
 * else its customer's, else the default.
 */
export async function stylesFor(db: BookDb, documents: readonly Printed[]): Promise<readonly DocumentStyle[]> {
  const [styles, customers, looks, book] = await Promise.all([
    db.styles.toArray(),
    db.customers.bulkGet(documents.map((document) => document.customerId)),
    db.looks.bulkGet(documents.map((document) => document.lookId ?? '')),
    db.book.get('book'),
  ]);
  return documents.map(
    ({ styleId, lookId }, i) =>
      looks[i]?.style ??
      (lookId === ''
        ? styleFor([])
        : styleFor(styles, styleId, customers[i]?.styleId ?? '', book?.business.styleId ?? '')),
  );
}
