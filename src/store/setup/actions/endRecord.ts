import { type ArchivableTable, archiveRecord, deleteRecord, type EndableTable } from '@/core/decisions/setup/endRecord';
import type { Action } from '../../perform';
import { usedBy } from '../queries/uses';

/** Deletes a record that nothing uses. */
export const endRecord: Action<{ readonly table: EndableTable; readonly id: string }, null> = {
  name: 'delete record',
  async decide(db, { table, id }) {
    const record = await db[table].get(id);
    return deleteRecord(table, record as never, record === undefined ? '' : await usedBy(db, table, id));
  },
};

/** Archives a customer, an item or a bank account, or offers it again. */
export const setArchived: Action<
  { readonly table: ArchivableTable; readonly id: string; readonly archived: boolean },
  null
> = {
  name: 'archive record',
  async decide(db, { table, id, archived }) {
    return archiveRecord(table, (await db[table].get(id)) as never, archived);
  },
};
