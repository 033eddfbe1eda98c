import type { IssuedDocument } from '@/core/documents/issued';
import { KINDS } from '@/core/documents/kinds';
import type { Debt } from '@/core/settlement/proposal';
import type { BookDb } from '../../schema';

/** A customer and those under it. */
export function customerAndChildren(db: BookDb, customerId: string): Promise<string[]> {
  return db.customers
    .where('parentId')
    .equals(customerId)
    .primaryKeys()
    .then((children) => [customerId, ...children]);
}

const byDue = (a: IssuedDocument, b: IssuedDocument) => (a.dueDate + a.number < b.dueDate + b.number ? -1 : 1);

/**
 * What a customer and those under it owe, oldest due first, with what was kept back of each; `also` names a document that is
 * wanted though nothing is open, as one that was written off.
 */
export async function debtsOf(db: BookDb, customerId: string, also = ''): Promise<Debt[]> {
  const ids = await customerAndChildren(db, customerId);
  const [open, named] = await Promise.all([
    db.documents
      .where('[customerId+isOpen]')
      .anyOf(ids.map((id) => [id, 1]))
      .toArray(),
    also === '' ? undefined : db.documents.get(also),
  ]);
  const writtenOff = named !== undefined && named.open === 0n && named.writtenOff !== 0n ? [named] : [];
  const owed = open.filter((document) => KINDS[document.kind].owed && document.open > 0n).sort(byDue);
  const documents = [...owed, ...writtenOff];
  const withheld = await db.withheld
    .where('documentId')
    .anyOf(documents.map(({ id }) => id))
    .toArray();
  return documents.map((document) => ({
    document,
    withheld: withheld.filter(({ documentId }) => documentId === document.id),
  }));
}
