import {
  type AllocateInput,
  allocate,
  type PairMaterial,
  undoAllocation as takeBack,
} from '@/core/decisions/payments/allocate';
import type { Allocation } from '@/core/settlement/allocation';
import type { Action } from '../../perform';
import type { BookDb } from '../../schema';
import { creditOf } from '../queries/credits';
import { notesOf } from '../queries/notes';
import { parentsOf } from '../queries/parents';

/** A credit and a debt, with what making or undoing an allocation of the two looks at. */
function loadPair(db: BookDb, { creditId, debtId }: Pick<AllocateInput, 'creditId' | 'debtId'>): Promise<PairMaterial> {
  return Promise.all([
    db.receipts.get(creditId),
    db.documents.get(creditId),
    db.documents.get(debtId),
    db.allocations.where('debtId').equals(debtId).toArray(),
    db.allocations.where('creditId').equals(creditId).toArray(),
    db.accounts.toArray(),
    db.registrations.toArray(),
  ]).then(([receipt, note, debt, ofDebt, ofCredit, chart, registrations]) =>
    Promise.all([notesOf(db, [debt]), parentsOf(db, [receipt?.customerId ?? note?.customerId, debt?.customerId])]).then(
      ([notes, parents]) => ({
        credit: creditOf(receipt, note),
        debt,
        ofDebt,
        ofCredit,
        notes,
        parents,
        chart,
        registrations,
      }),
    ),
  );
}

/** Settles a debt with money on account, or with a credit note. */
export const allocateCredit: Action<AllocateInput, Allocation> = {
  name: 'allocate',
  async decide(db, input, moment) {
    return allocate(input, await loadPair(db, input), moment);
  },
};

/** Undoes the newest allocation between a credit and a debt. */
export const undoAllocation: Action<Omit<AllocateInput, 'amount'>, Allocation> = {
  name: 'undo allocation',
  async decide(db, input, moment) {
    return takeBack(input, await loadPair(db, input), moment);
  },
};
