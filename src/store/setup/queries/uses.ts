import Dexie from 'dexie';
import { BOOK_TABLES, type BookTable, descriptorOf } from '@/core/book/tables';
import type { EndableTable } from '@/core/decisions/setup/endRecord';
import type { UnderCustomer } from '@/core/decisions/setup/mergeCustomers';
import { loadBook } from '../../load';
import type { BookDb } from '../../schema';

/** The rows of a table that stand under a customer; `above` are those of the tables before it. */
export function rowsUnder(db: BookDb, name: BookTable, customerId: string, above: UnderCustomer): Promise<unknown[]> {
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

/** What a row is called: by its name or number, or else by what it is. */
function named(row: unknown, otherwise: string): string {
  if (row === undefined) return '';
  const { name = '', number = '' } = row as { readonly name?: string; readonly number?: string };
  return name || number || otherwise;
}

/** What stands under a customer, by a name of its own or of its table; empty when nothing does. */
async function useOfCustomer(db: BookDb, id: string): Promise<string> {
  let under: UnderCustomer = {};
  for (const name of BOOK_TABLES) {
    const rows = await rowsUnder(db, name, id, under);
    if (rows[0] !== undefined) return named(rows[0], name);
    under = { ...under, [name]: rows };
  }
  return '';
}

/** The first found of several looks, each taken only when those before it found nothing. */
async function first(...looks: readonly (() => Promise<string>)[]): Promise<string> {
  for (const look of looks) {
    const found = await look();
    if (found !== '') return found;
  }
  return '';
}

const USES: Readonly<Record<EndableTable, (db: BookDb, id: string) => Promise<string>>> = {
  customers: useOfCustomer,
  items: (db, id) => {
    const holds = ({ itemId }: { readonly itemId?: string }) => itemId === id;
    return first(
      async () => named(await db.priceLists.filter(({ prices }) => prices.some(holds)).first(), 'a price list'),
      async () => named(await db.drafts.filter(({ lines }) => lines.some(holds)).first(), 'a draft'),
      async () => named(await db.documents.filter(({ content }) => content.lines.some(holds)).first(), 'a document'),
    );
  },
  priceLists: (db, id) =>
    first(
      async () => named(await db.customers.filter(({ priceListId }) => priceListId === id).first(), 'a customer'),
      async () => {
        const takes = ({ priceListId }: { readonly priceListId: string }) => priceListId === id;
        return named(
          await db.recurring.filter(({ priceChanges }) => priceChanges.some(takes)).first(),
          'a recurring document',
        );
      },
    ),
  styles: (db, id) =>
    first(
      async () => ((await loadBook(db)).business.styleId === id ? 'the business, as its own style' : ''),
      async () => named(await db.customers.filter(({ styleId }) => styleId === id).first(), 'a customer'),
      async () => named(await db.drafts.filter(({ styleId }) => styleId === id).first(), 'a draft'),
    ),
  bankAccounts: (db, id) =>
    first(
      async () => named(await db.styles.filter(({ bankAccountId }) => bankAccountId === id).first(), 'a style'),
      async () => named(await db.drafts.filter(({ bankAccountId }) => bankAccountId === id).first(), 'a draft'),
    ),
};

/** One thing that uses a record, by its name or number; empty when nothing does. */
export function usedBy(db: BookDb, table: EndableTable, id: string): Promise<string> {
  return USES[table](db, id);
}
