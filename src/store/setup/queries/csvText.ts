import { type BookRows, type CsvTable, columnsOf } from '@/core/book/tables';
import { writeCsv } from '@/core/files/csv';
import type { BookDb } from '../../schema';

/** A whole table as a CSV file. */
export async function csvText<T extends CsvTable>(db: BookDb, table: T): Promise<string> {
  const { heads, write } = columnsOf(table);
  const records = await db.table<BookRows[T]>(table).toArray();
  return writeCsv(heads, records.flatMap(write));
}
