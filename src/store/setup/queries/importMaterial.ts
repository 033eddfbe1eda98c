import type { CsvTable } from '@/core/book/tables';
import type { CsvRecords, ImportMaterial } from '@/core/files/importTable';
import type { IsoDate } from '@/core/kernel/date';
import { loadRecords } from '../../load';
import type { BookDb } from '../../schema';
import { usedUntil } from '../actions/taxSetup';

/** What an import of a table is held against: the whole table, and what its records rest on. */
export async function importMaterial<T extends CsvTable>(db: BookDb, table: T): Promise<ImportMaterial<T>> {
  const [rows, records, customerIds, accounts] = await Promise.all([
    db.table<CsvRecords[T]>(table).toArray(),
    loadRecords(db),
    table === 'certificates' ? db.customers.toCollection().primaryKeys() : [],
    db.accounts.toCollection().primaryKeys(),
  ]);
  const used = new Map<string, IsoDate>();
  if (table === 'taxes')
    for (const { id } of rows) {
      const day = await usedUntil(db, id);
      if (day !== null) used.set(id, day);
    }
  return {
    known: new Map(rows.map((row) => [row.id, row])),
    records,
    usedUntil: used,
    customerIds: new Set(customerIds),
    accounts: new Set(accounts),
  };
}
