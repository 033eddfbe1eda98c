import type { Table } from 'dexie';
import type { Changes, Moment } from '@/core/book/changes';
import type { TruthTable } from '@/core/book/tables';
import { grouped } from '@/core/kernel/grouped';
import { isBalanced } from '@/core/ledger/entry';
import { onReceivables } from '@/core/settlement/receipt';
import { moveAccounts, moveCustomers, moveTax, moveVocabulary, openMoves } from './balances';
import type { BookDb } from './schema';

/**
 * The one door for writing. Called inside a read-write transaction over the tables it touches; writes truth,
 * kept balances and the audit event together. Throws (and so undoes everything) when an entry does
 * not balance or a new row exists already.
 */
export async function write(db: BookDb, changes: Changes, action: string, moment: Moment): Promise<void> {
  const { add = {}, put = {}, remove = {}, audit } = changes;
  const lines = add.journalLines ?? [];
  for (const [entryId, group] of grouped(lines, (line) => line.entryId))
    if (!isBalanced(group)) throw new RangeError(`entry ${entryId} does not balance`);

  const after = [...(add.documents ?? []), ...(put.documents ?? [])];
  const before = after.length === 0 ? [] : await db.documents.bulkGet(after.map((document) => document.id));
  const money = [...(add.receipts ?? []), ...(put.receipts ?? [])];
  const moneyBefore = money.length === 0 ? [] : await db.receipts.bulkGet(money.map((receipt) => receipt.id));
  const { now: at, operator, newId } = moment;
  const notes = [audit ?? []].flat().map((note) => ({ id: newId(), at, operator, action, ...note }));
  // Side by side: each answer of the database that is waited for alone costs as much as the writing itself.
  await Promise.all([
    ...Object.entries(add).map(([name, rows]) => tableOf(db, name).bulkAdd([...rows])),
    ...Object.entries(put).map(([name, rows]) => tableOf(db, name).bulkPut([...rows])),
    ...Object.entries(remove).map(([name, keys]) => tableOf(db, name).bulkDelete([...keys])),
    ...(after.length + money.length > 0
      ? [
          moveCustomers(db, [
            ...openMoves(after, before),
            ...openMoves(
              money.map(onReceivables),
              moneyBefore.map((receipt) => receipt && onReceivables(receipt)),
            ),
          ]),
        ]
      : []),
    ...(after.length > 0 ? [moveVocabulary(db, after, before)] : []),
    ...(lines.length > 0 ? [moveAccounts(db, lines)] : []),
    ...(add.taxEntries !== undefined ? [moveTax(db, add.taxEntries)] : []),
    ...(notes.length > 0 ? [db.audit.bulkAdd(notes)] : []),
  ]);
}

function tableOf(db: BookDb, name: string): Table<unknown> {
  return db.table(name as TruthTable);
}
