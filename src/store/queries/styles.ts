import type { IssuedDocument } from '@/core/documents/issued';
import { type DocumentStyle, PLAIN_STYLE } from '@/core/documents/style';
import type { BookDb } from '../schema';

/** The style that documents print in: their own, else their customer's, else the book's first, else plain. */
export async function stylesFor(
  db: BookDb,
  documents: readonly Pick<IssuedDocument, 'styleId' | 'customerId'>[],
): Promise<readonly DocumentStyle[]> {
  const [styles, customers] = await Promise.all([
    db.styles.toArray(),
    db.customers.bulkGet(documents.map((document) => document.customerId)),
  ]);
  const byId = new Map(styles.map((style) => [style.id, style]));
  return documents.map(
    ({ styleId }, i) => byId.get(styleId) ?? byId.get(customers[i]?.styleId ?? '') ?? styles[0] ?? PLAIN_STYLE,
  );
}
