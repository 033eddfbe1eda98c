import type { Transaction } from 'dexie';
import { type BookContentV1, upgradeV1 } from '@/core/files/upgrade';
import { grouped } from '@/core/kernel/grouped';
import { addToBalances } from '@/core/periods/return';

const READ = [
  'book',
  'registrations',
  'taxCodes',
  'customers',
  'items',
  'accounts',
  'drafts',
  'taxEntries',
  'taxPeriods',
] as const;

/** Brings a stored book of version 1 up to version 2, inside the transaction in which the browser opens it. */
export async function upgradeBook(transaction: Transaction): Promise<void> {
  const old: Record<string, unknown[]> = {};
  for (const table of READ) old[table] = await transaction.table(table).toArray();
  if (old.book?.length === 0) return;
  const upgraded = upgradeV1(old as unknown as BookContentV1);
  for (const [table, rows] of Object.entries(upgraded)) await transaction.table(table).bulkPut([...rows]);
  for (const entries of grouped(upgraded.taxEntries, (entry) => entry.periodId).values())
    await transaction.table('taxRows').bulkAdd([...addToBalances([], entries)]);
}
