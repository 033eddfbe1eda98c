import Dexie, { type Collection, type Table } from 'dexie';
import type { CustomerRow, ItemRow } from '@/core/book/rows';
import type { SavedView } from '@/core/documents/documentFilter';
import type { Draft } from '@/core/documents/draft';
import type { IssuedDocument } from '@/core/documents/issued';
import { type DocumentKind, OWED_KINDS } from '@/core/documents/kinds';
import { holdsParts, searchParts } from '@/core/kernel/words';
import { type Allocation, standing } from '@/core/settlement/allocation';
import type { Receipt } from '@/core/settlement/receipt';
import type { BookDb } from '../../schema';

interface Keyed {
  readonly keys: readonly string[];
}

/** Rows that hold every part of the query, through the index of the longest part. */
async function found<Row extends Keyed>(
  table: Table<Row, string>,
  query: string,
  limit: number,
  fits: (row: Row) => boolean = () => true,
): Promise<Row[]> {
  const parts = searchParts(query);
  const longest = parts.reduce((a, b) => (b.length > a.length ? b : a), '');
  if (longest === '') return [];
  const hits: Collection<Row, string> = table.where('keys').startsWith(longest).distinct();
  return hits
    .filter((row) => (parts.length === 1 || holdsParts(row.keys, parts)) && fits(row))
    .limit(limit)
    .toArray();
}

/** Not what a recurring document or a run says. */
const isOwnDraft = ({ recurringId, runId }: Draft): boolean => recurringId === undefined && runId === undefined;

function findDrafts(db: BookDb, query: string, limit: number): Promise<Draft[]> {
  return found(db.drafts as unknown as Table<Draft, string>, query, limit, isOwnDraft);
}

function recentDrafts(db: BookDb, limit: number): Promise<Draft[]> {
  return db.drafts.orderBy('savedAt').reverse().filter(isOwnDraft).limit(limit).toArray();
}

interface Archivable {
  readonly archived?: boolean;
}

const isOffered = ({ archived }: Archivable): boolean => archived !== true;

/** Customers by any part of name, town, number; the first by name when nothing is typed. */
export function allCustomers(db: BookDb, query: string, limit: number): Promise<CustomerRow[]> {
  return customersThat(db, query, limit, () => true);
}

/** The same of those that are offered: archived ones are not. */
export function findCustomers(db: BookDb, query: string, limit: number): Promise<CustomerRow[]> {
  return customersThat(db, query, limit, isOffered);
}

function customersThat(db: BookDb, query: string, limit: number, fits: (row: CustomerRow) => boolean) {
  if (query.trim() === '')
    return db.customers
      .orderBy('name')
      .filter((customer) => customer.mergedInto === '' && fits(customer))
      .limit(limit)
      .toArray();
  return found(db.customers as unknown as Table<CustomerRow, string>, query, limit, fits);
}

/** Items by any part of any word; the first by name when nothing is typed. */
export function allItems(db: BookDb, query: string, limit: number): Promise<ItemRow[]> {
  return itemsThat(db, query, limit, () => true);
}

/** The same of those that are offered: archived ones are not. */
export function findItems(db: BookDb, query: string, limit: number): Promise<ItemRow[]> {
  return itemsThat(db, query, limit, isOffered);
}

function itemsThat(db: BookDb, query: string, limit: number, fits: (row: ItemRow) => boolean) {
  if (query.trim() === '') return db.items.orderBy('name').filter(fits).limit(limit).toArray();
  return found(db.items as unknown as Table<ItemRow, string>, query, limit, fits);
}

export function findReceipts(db: BookDb, query: string, limit: number): Promise<Receipt[]> {
  if (query.trim() === '') return db.receipts.orderBy('[date+number]').reverse().limit(limit).toArray();
  return found(db.receipts as unknown as Table<Receipt, string>, query, limit);
}

/** Open invoices, those from before the book included, of which a part was due before a day; oldest first. */
export async function overdueInvoices(db: BookDb, today: string, limit: number): Promise<IssuedDocument[]> {
  const found = await Promise.all(
    OWED_KINDS.map((kind) =>
      db.documents
        .where('[isOpen+kind+dueDate]')
        .between([1, kind, Dexie.minKey], [1, kind, today], true, false)
        .limit(limit)
        .toArray(),
    ),
  );
  return found
    .flat()
    .sort((a, b) => (a.dueDate < b.dueDate ? -1 : a.dueDate > b.dueDate ? 1 : 0))
    .slice(0, limit);
}

/** Allocations of which any of these documents is the debt or the credit, in the order they were made. */
export async function allocationsOf(db: BookDb, documentIds: readonly string[]): Promise<Allocation[]> {
  const [asDebt, asCredit] = await Promise.all([
    db.allocations.where('debtId').anyOf(documentIds).toArray(),
    db.allocations.where('creditId').anyOf(documentIds).toArray(),
  ]);
  const all = new Map([...asDebt, ...asCredit].map((one) => [one.id, one]));
  return [...all.values()].sort((a, b) => (a.at === b.at ? a.turn - b.turn : a.at < b.at ? -1 : 1));
}

/** Receipts that settle any of these documents, oldest first. */
export async function receiptsOf(db: BookDb, documentIds: readonly string[]): Promise<Receipt[]> {
  const made = await allocationsOf(db, documentIds);
  const ids = standing(made).flatMap(({ creditKind, creditId }) => (creditKind === 'receipt' ? [creditId] : []));
  const all = await db.receipts.bulkGet([...new Set(ids)]);
  return all.flatMap((receipt) => receipt ?? []).sort((a, b) => (a.date < b.date ? -1 : 1));
}

/** A draft with the name of its customer, '' while none is chosen. */
export interface DraftFound {
  readonly draft: Draft;
  readonly customer: string;
}

/** Drafts that hold every part of what is typed; the last written ones when nothing is. */
export async function draftsFound(db: BookDb, query: string, limit: number): Promise<readonly DraftFound[]> {
  const drafts = query.trim() === '' ? await recentDrafts(db, limit) : await findDrafts(db, query, limit);
  const customers = await db.customers.bulkGet(drafts.map((draft) => draft.customerId));
  return drafts.map((draft, i) => ({ draft, customer: customers[i]?.name ?? '' }));
}

/** Whether something was issued under this id. */
export async function isDocument(db: BookDb, id: string): Promise<boolean> {
  return (await db.documents.where('id').equals(id).count()) > 0;
}

/** Views of the list of documents that were kept, by name. */
export function savedViews(db: BookDb): Promise<SavedView[]> {
  return db.savedViews.orderBy('name').toArray();
}

/** The newest document of a kind; undefined where there is none. */
export function newestOfKind(db: BookDb, kind: DocumentKind): Promise<IssuedDocument | undefined> {
  return db.documents.where('[kind+issueDate]').between([kind, Dexie.minKey], [kind, Dexie.maxKey]).last();
}
