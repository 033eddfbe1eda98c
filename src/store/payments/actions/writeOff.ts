import {
  undoWriteOff as takeBack,
  type WriteOffInput,
  type WriteOffMaterial,
  writeOff,
} from '@/core/decisions/payments/writeOff';
import type { Allocation } from '@/core/settlement/allocation';
import type { Action } from '../../perform';
import type { BookDb } from '../../schema';
import { notesOf } from '../queries/notes';

function loadDebt(db: BookDb, documentId: string): Promise<WriteOffMaterial> {
  return Promise.all([
    db.documents.get(documentId),
    db.allocations.where('debtId').equals(documentId).toArray(),
    db.accounts.toArray(),
    db.registrations.toArray(),
  ]).then(([document, ofDebt, chart, registrations]) =>
    notesOf(db, [document]).then((notes) => ({ document, ofDebt, chart, registrations, notes })),
  );
}

/** Gives up what a customer owes, with or without relief of its output tax. */
export const writeOffDebt: Action<WriteOffInput, Allocation> = {
  name: 'write off',
  async decide(db, input, moment) {
    return writeOff(input, await loadDebt(db, input.documentId), moment);
  },
};

/** Takes a write-off back by its id. */
export const undoWriteOff: Action<{ readonly id: string; readonly date: string }, Allocation> = {
  name: 'undo write-off',
  async decide(db, input, moment) {
    const made = await db.allocations.get(input.id);
    return takeBack(input, await loadDebt(db, made?.debtId ?? ''), moment);
  },
};
