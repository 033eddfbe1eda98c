import type { Table } from 'dexie';
import type { Changes, Moment, TruthTable } from '@/core/decisions/changes';
import { grouped } from '@/core/kernel/grouped';
import { isBalanced } from '@/core/ledger/entry';
import { moveAccounts, moveCustomers, moveTax, moveVocabulary, openMoves } from './balances';
import type { BookDb } from './schema';

/**
 * The one door for writing. Called inside a read-write transaction over all tables; writes truth,
 * kept balances and the audit event together. Throws (and so undoes everything) when an entry does
 * not balance or a new row exists already.
 */
export async function write(db: BookDb, changes: Changes, action: string, moment: Moment): Promise<void> {
  const { add = {}, put = {}, remove = {}, audit } = changes;
  const lines = add.journalLines ?? [];
  for (const [entryId, group] of grouped(lines, (line) => line.entryId))
    if (!isBalanced(group)) throw new RangeError(`entry ${entryId} does not balance`);

  const after = [...(add.documents ?? []), ...(put.documents ?? [])];
  if (after.length > 0) {
    const before = await db.documents.bulkGet(after.map((document) => document.id));
    await moveCustomers(db, openMoves(after, before));
    await moveVocabulary(db, after, before);
  }
  for (const [name, rows] of Object.entries(add)) await tableOf(db, name).bulkAdd([...rows]);
  for (const [name, rows] of Object.entries(put)) await tableOf(db, name).bulkPut([...rows]);
  if (remove.drafts !== undefined) await db.drafts.bulkDelete([...remove.drafts]);
  if (remove.places !== undefined) await db.places.bulkDelete([...remove.places]);
  if (remove.taxes !== undefined) await db.taxes.bulkDelete([...remove.taxes]);
  if (remove.taxCodes !== undefined) await db.taxCodes.bulkDelete([...remove.taxCodes]);
  if (remove.savedViews !== undefined) await db.savedViews.bulkDelete([...remove.savedViews]);
  if (remove.attachments !== undefined) await db.attachments.bulkDelete([...remove.attachments]);
  if (lines.length > 0) await moveAccounts(db, lines);
  if (add.taxEntries !== undefined) await moveTax(db, add.taxEntries);
  if (audit !== null)
    await db.audit.add({ id: moment.newId(), at: moment.now, operator: moment.operator, action, ...audit });
}

function tableOf(db: BookDb, name: string): Table<unknown> {
  return db.table(name as TruthTable);
}
