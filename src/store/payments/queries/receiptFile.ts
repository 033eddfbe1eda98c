import type { AuditEvent } from '@/core/book/rows';
import type { Mail } from '@/core/delivery/mail';
import type { Attachment } from '@/core/documents/attachment';
import { isDiscountNote } from '@/core/documents/discountNote';
import type { IssuedDocument } from '@/core/documents/issued';
import type { JournalLine } from '@/core/ledger/entry';
import type { Allocation } from '@/core/settlement/allocation';
import type { Receipt } from '@/core/settlement/receipt';
import type { Withheld } from '@/core/settlement/withholding';
import { mailsToCustomer } from '../../delivery/queries/mail';
import { attachmentsOf, historyOf } from '../../sales/queries/family';
import type { BookDb } from '../../schema';
import { notesOf } from './notes';

/** A receipt with what it settles and settled, and what was posted for all of it. */
export interface ReceiptFile {
  readonly receipt: Receipt;
  /** In the order they were made, undone ones too; differences closed with them among them. */
  readonly allocations: readonly Allocation[];
  /** What the customer kept back with it. */
  readonly withheld: readonly Withheld[];
  readonly lines: readonly JournalLine[];
  readonly attachments: readonly Attachment[];
  readonly events: readonly AuditEvent[];
  readonly mails: readonly Mail[];
}

/** Everything the sheet of a receipt shows; null when the book holds none of this id. */
export async function receiptFile(db: BookDb, id: string): Promise<ReceiptFile | null> {
  const receipt = await db.receipts.get(id);
  if (receipt === undefined) return null;
  const made = (await db.allocations.where('creditId').equals(id).toArray()).sort(
    (a, b) => a.creditTurn - b.creditTurn,
  );
  const own = new Set(made.map((one) => one.id));
  const [ofDebts, refunds, withheld, attachments, events, mails] = await Promise.all([
    db.allocations
      .where('debtId')
      .anyOf([...new Set(made.map(({ debtId }) => debtId))])
      .toArray(),
    db.refunds.bulkGet(made.map(({ debtId }) => debtId)),
    db.withheld.where('receiptId').equals(id).toArray(),
    attachmentsOf(db, id),
    historyOf(db, id),
    mailsToCustomer(db, receipt.customerId, receipt.number),
  ]);
  const differences = ofDebts.filter(({ closing }) => closing !== undefined && own.has(closing.withId));
  const allocations = made.flatMap((one) => [one, ...differences.filter(({ closing }) => closing?.withId === one.id)]);
  const entryIds = [
    receipt.entryId,
    ...(receipt.dishonoured?.entryIds ?? []),
    ...refunds.flatMap((refund) => (refund === undefined ? [] : [refund.entryId, refund.undone?.entryId ?? ''])),
    ...allocations.flatMap((one) => [...one.entryIds, ...(one.undone?.entryIds ?? [])]),
  ];
  const lines = await db.journalLines
    .where('entryId')
    .anyOf([...new Set(entryIds)])
    .toArray();
  return { receipt, allocations, withheld, lines, attachments, events, mails };
}

/** Credit notes for discounts that were taken with a receipt. */
export async function discountNotes(db: BookDb, { id, date }: Receipt): Promise<IssuedDocument[]> {
  const account = (await db.accounts.toArray()).find(({ role }) => role === 'settlement-discounts')?.code ?? '';
  const made = await db.allocations.where('creditId').equals(id).toArray();
  const debts = await db.documents.bulkGet([...new Set(made.map(({ debtId }) => debtId))]);
  const notes = await notesOf(db, debts);
  return notes.filter((note) => note.issueDate === date && isDiscountNote(note, account));
}
