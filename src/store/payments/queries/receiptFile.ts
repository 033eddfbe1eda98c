import type { JournalLine } from '@/core/ledger/entry';
import type { Allocation } from '@/core/settlement/allocation';
import type { Receipt } from '@/core/settlement/receipt';
import type { BookDb } from '../../schema';

/** A receipt with what it settles and settled, and what was posted for all of it. */
export interface ReceiptFile {
  readonly receipt: Receipt;
  /** In the order they were made, undone ones too. */
  readonly allocations: readonly Allocation[];
  readonly lines: readonly JournalLine[];
}

/** Everything the sheet of a receipt shows; null when the book holds none of this id. */
export async function receiptFile(db: BookDb, id: string): Promise<ReceiptFile | null> {
  const receipt = await db.receipts.get(id);
  if (receipt === undefined) return null;
  const made = await db.allocations.where('creditId').equals(id).toArray();
  const allocations = made.sort((a, b) => a.creditTurn - b.creditTurn);
  const refunds = await db.refunds.bulkGet(allocations.map(({ debtId }) => debtId));
  const entryIds = [
    receipt.entryId,
    ...refunds.flatMap((refund) => refund?.entryId ?? []),
    ...allocations.flatMap((one) => [...one.entryIds, ...(one.undone?.entryIds ?? [])]),
  ];
  const lines = await db.journalLines
    .where('entryId')
    .anyOf([...new Set(entryIds)])
    .toArray();
  return { receipt, allocations, lines };
}

/** Receipts of a customer of which something is on account, oldest first. */
export async function onAccount(db: BookDb, customerId: string): Promise<Receipt[]> {
  const receipts = await db.receipts.where('[customerId+isOpen]').equals([customerId, 1]).toArray();
  return receipts.sort((a, b) => (a.date + a.number < b.date + b.number ? -1 : 1));
}
