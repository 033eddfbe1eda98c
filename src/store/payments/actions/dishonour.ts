import { type DishonourInput, dishonour } from '@/core/decisions/payments/dishonour';
import { positionOf } from '@/core/decisions/payments/position';
import { standing } from '@/core/settlement/allocation';
import type { Receipt } from '@/core/settlement/receipt';
import type { Action } from '../../perform';
import { notesOf } from '../queries/notes';

/** A receipt came back unpaid: it is taken back whole, and what it settled is open again. */
export const dishonourReceipt: Action<DishonourInput, Receipt> = {
  name: 'dishonour receipt',
  async decide(db, input, moment) {
    const { receiptId } = input;
    const [receipt, ofCredit, withheld, chart, registrations] = await Promise.all([
      db.receipts.get(receiptId),
      db.allocations.where('creditId').equals(receiptId).toArray(),
      db.withheld.where('receiptId').equals(receiptId).toArray(),
      db.accounts.toArray(),
      db.registrations.toArray(),
    ]);
    const ids = [...new Set(standing(ofCredit).map(({ debtId }) => debtId))];
    const [found, ofDebts, lines] = await Promise.all([
      db.documents.bulkGet(ids),
      db.allocations.where('debtId').anyOf(ids).toArray(),
      db.journalLines
        .where('entryId')
        .equals(receipt?.entryId ?? '')
        .toArray(),
    ]);
    const debts = found.flatMap((document) => document ?? []);
    const notes = await notesOf(db, debts);
    const rows = {
      debts,
      credits: receipt === undefined ? [] : [{ kind: 'receipt' as const, receipt }],
      allocations: [...ofCredit, ...ofDebts],
      notes,
    };
    const position = positionOf({ chart, registrations }, rows);
    return dishonour(input, { receipt, position, withheld, lines }, moment);
  },
};
