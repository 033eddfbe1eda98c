import type { CustomerRow } from '@/core/book/rows';
import { BOOK_TABLES } from '@/core/book/tables';
import { mergeCustomers, type UnderCustomer } from '@/core/decisions/setup/mergeCustomers';
import type { Action } from '../../perform';
import { rowsUnder } from '../queries/uses';

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
