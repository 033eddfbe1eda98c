import { KINDS } from '@/core/documents/kinds';
import { type Credit, leftOfCredit } from '@/core/settlement/allocation';
import type { BookDb } from '../../schema';

/** A customer with all under the same parent, who settle what any of them owes. */
export function groupOf(db: BookDb, customerId: string): Promise<string[]> {
  return db.customers.get(customerId).then((customer) => {
    const head = customer?.parentId || customerId;
    return db.customers
      .where('parentId')
      .equals(head)
      .primaryKeys()
      .then((children) => [...new Set([customerId, head, ...children])]);
  });
}

/** What is held for a customer, or for others under its parent: money on account and credit notes that are open, oldest first. */
export async function creditsHeld(db: BookDb, customerId: string): Promise<Credit[]> {
  const keys = (await groupOf(db, customerId)).map((id) => [id, 1]);
  const [receipts, documents] = await Promise.all([
    db.receipts.where('[customerId+isOpen]').anyOf(keys).toArray(),
    db.documents.where('[customerId+isOpen]').anyOf(keys).toArray(),
  ]);
  const dated = [
    ...receipts.map((receipt) => ({ day: receipt.date, credit: { kind: 'receipt', receipt } as Credit })),
    ...documents.flatMap((note) =>
      KINDS[note.kind].creditsOwed && note.open < 0n
        ? [{ day: note.issueDate, credit: { kind: 'credit-note', note } as Credit }]
        : [],
    ),
  ];
  const key = ({ day, credit }: (typeof dated)[number]) => `${day} ${leftOfCredit(credit).number}`;
  return dated.sort((a, b) => (key(a) < key(b) ? -1 : 1)).map(({ credit }) => credit);
}
