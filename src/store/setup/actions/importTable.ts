import type { CsvTable } from '@/core/book/tables';
import { importTable } from '@/core/files/importTable';
import type { Action } from '../../perform';
import { importMaterial } from '../queries/importMaterial';

/** Takes a CSV file into a table of the tax set-up, whole or not at all. */
export const importCsv: Action<
  { readonly table: CsvTable; readonly text: string },
  { readonly added: number; readonly changed: number }
> = {
  name: 'import table',
  async decide(db, { table, text }) {
    return importTable(table, text, await importMaterial(db, table));
  },
};
