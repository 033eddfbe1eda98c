import Dexie from 'dexie';
import type { CustomerRow } from '@/core/book/rows';
import { BOOK_TABLES, type BookTable, descriptorOf } from '@/core/book/tables';
import { mergeCustomers, type UnderCustomer } from '@/core/decisions/setup/mergeCustomers';
import type { Action } from '../../perform';
import type { BookDb } from '../../schema';

/** The rows of a table that stand under a customer; `above` are those of the tables before it. */
function rowsUnder(db: BookDb, name: BookTable, customerId: string, above: UnderCustomer): Promise<unknown[]> {
  const { customers } = descriptorOf(name);
  if (customers === undefined) return Promise.resolve([]);
  const { found } = customers;
  const rows = db.table(name);
  if ('customerOf' in found) return rows.filter((row) => found.customerOf(row as never) === customerId).toArray();
  if (found.through !== undefined) {
    const keys = (above[found.through as BookTable] ?? []).map((row) => (row as { readonly id: string }).id);
    return rows.where(found.index).anyOf(keys).toArray();
  }
  const where = rows.where(found.index);
  return found.index.startsWith('[')
    ? where.between([customerId, Dexie.minKey], [customerId, Dexie.maxKey]).toArray()
    : where.equals(customerId).toArray();
}

/** Merges the record of a double into the one that is kept. */
export const mergeDouble: Action<{ keepId: string; doubleId: string }, CustomerRow> = {
  name: 'merge customers',
  async decide(db, { keepId, doubleId }) {
    const [keep, double] = await db.customers.bulkGet([keepId, doubleId]);
    let under: UnderCustomer = {};
    for (const name of BOOK_TABLES) {
      const rows = await rowsUnder(db, name, doubleId, under);
      if (rows.length > 0) under = { ...under, [name]: rows };
    }
    return mergeCustomers({ keep, double, under });
  },
};
