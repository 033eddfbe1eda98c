import type { Transaction } from 'dexie';
import type { BookContent } from '@/core/book/tables';
import { UPGRADES, workOut } from '@/core/files/upgrades';
import { derivedRows } from './derived';

const rowsOf = (transaction: Transaction, table: string): Promise<unknown[]> => transaction.table(table).toArray();

/** What follows from truth, worked out once when a stored book has reached today's version. */
async function rebuild(transaction: Transaction): Promise<void> {
  const [documents, receipts, journalLines, taxEntries] = [
    workOut((await rowsOf(transaction, 'documents')) as unknown as BookContent['documents']),
    (await rowsOf(transaction, 'receipts')) as unknown as BookContent['receipts'],
    (await rowsOf(transaction, 'journalLines')) as unknown as BookContent['journalLines'],
    (await rowsOf(transaction, 'taxEntries')) as unknown as BookContent['taxEntries'],
  ];
  await transaction.table('documents').bulkPut([...documents]);
  for (const [table, rows] of Object.entries(derivedRows({ documents, receipts, journalLines, taxEntries }))) {
    await transaction.table(table).clear();
    await transaction.table(table).bulkAdd([...rows]);
  }
}

/**
 * Brings a stored book from a version up to the next one, inside the transaction in which the browser opens it; the last
 * of the upgrades also works out anew what follows from truth.
 */
export async function bringUp(transaction: Transaction, version: number): Promise<void> {
  const upgrade = UPGRADES[version - 1];
  if (upgrade === undefined || (await transaction.table('book').get('book')) === undefined) return;
  const old: Record<string, unknown[]> = {};
  for (const table of upgrade.reads) old[table] = await rowsOf(transaction, table);
  for (const [table, rows] of Object.entries(upgrade.write(old))) await transaction.table(table).bulkPut([...rows]);
  if (version === UPGRADES.length) await rebuild(transaction);
}
