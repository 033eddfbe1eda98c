import type { Transaction } from 'dexie';
import { type BookContentV1, upgradeV1 } from '@/core/files/upgradeV1';
import { type BookContentV2, upgradeV2 } from '@/core/files/upgradeV2';
import { type BookContentV3, upgradeV3 } from '@/core/files/upgradeV3';
import { type BookContentV4, upgradeV4 } from '@/core/files/upgradeV4';
import { grouped } from '@/core/kernel/grouped';
import { addToBalances } from '@/core/periods/return';
import { vocabularyOf } from './vocabulary';

const READ_V1 = [
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
export async function upgradeToV2(transaction: Transaction): Promise<void> {
  const old: Record<string, unknown[]> = {};
  for (const table of READ_V1) old[table] = await transaction.table(table).toArray();
  if (old.book?.length === 0) return;
  const upgraded = upgradeV1(old as unknown as BookContentV1);
  for (const [table, rows] of Object.entries(upgraded)) await transaction.table(table).bulkPut([...rows]);
  for (const entries of grouped(upgraded.taxEntries, (entry) => entry.periodId).values())
    await transaction.table('taxRows').bulkAdd([...addToBalances([], entries)]);
}

const READ_V2 = ['book', 'accounts', 'series', 'customers', 'drafts', 'documents', 'receipts'] as const;

/** Brings a stored book of version 2 up to version 3, in the same transaction. */
export async function upgradeToV3(transaction: Transaction): Promise<void> {
  const old: Record<string, unknown[]> = {};
  for (const table of READ_V2) old[table] = await transaction.table(table).toArray();
  if (old.book?.length === 0) return;
  const upgraded = upgradeV2(old as unknown as BookContentV2);
  for (const [table, rows] of Object.entries(upgraded)) await transaction.table(table).bulkPut([...rows]);
  await transaction.table('vocabulary').bulkAdd([...vocabularyOf(upgraded.documents)]);
}

const READ_V3 = ['book', 'customers', 'attachments'] as const;

/** Brings a stored book of version 3 up to version 4, in the same transaction. */
export async function upgradeToV4(transaction: Transaction): Promise<void> {
  const old: Record<string, unknown[]> = {};
  for (const table of READ_V3) old[table] = await transaction.table(table).toArray();
  const upgraded = upgradeV3(old as unknown as BookContentV3);
  for (const [table, rows] of Object.entries(upgraded)) await transaction.table(table).bulkPut([...rows]);
}

const READ_V4 = ['book', 'withholdingTypes', 'accounts', 'styles', 'customers', 'taxEntries', 'documents'] as const;

/** Brings a stored book of version 4 up to version 5, in the same transaction. */
export async function upgradeToV5(transaction: Transaction): Promise<void> {
  const old: Record<string, unknown[]> = {};
  for (const table of READ_V4) old[table] = await transaction.table(table).toArray();
  const upgraded = upgradeV4(old as unknown as BookContentV4);
  for (const [table, rows] of Object.entries(upgraded)) await transaction.table(table).bulkPut([...rows]);
  // Balances of taxes hold the base of each jurisdiction now.
  await transaction.table('taxRows').clear();
  for (const entries of grouped(upgraded.taxEntries, (entry) => entry.periodId).values())
    await transaction.table('taxRows').bulkAdd([...addToBalances([], entries)]);
}
