import Dexie, { type Collection, type Table } from 'dexie';
import type { CustomerRow, ItemRow } from '@/core/decisions/changes';
import type { Draft } from '@/core/documents/draft';
import type { IssuedDocument } from '@/core/documents/issued';
import { holdsParts, searchParts } from '@/core/kernel/words';
import type { Span } from '@/core/periods/calendar';
import type { Receipt } from '@/core/receipts/receipt';
import type { BookDb } from '../schema';

interface Keyed {
  readonly keys: readonly string[];
}

/** Rows that hold every part of the query, through the index of the longest part. */
async function found<Row extends Keyed>(table: Table<Row, string>, query: string, limit: number): Promise<Row[]> {
  const parts = searchParts(query);
  const longest = parts.reduce((a, b) => (b.length > a.length ? b : a), '');
  if (longest === '') return [];
  const hits: Collection<Row, string> = table.where('keys').startsWith(longest).distinct();
  return parts.length === 1
    ? hits.limit(limit).toArray()
    : hits
        .filter((row) => holdsParts(row.keys, parts))
        .limit(limit)
        .toArray();
}

/** Documents issued within a period, newest first. */
export function documentsIn(db: BookDb, span: Span, limit: number): Promise<IssuedDocument[]> {
  return db.documents
    .where('[issueDate+number]')
    .between([span.start, Dexie.minKey], [span.end, Dexie.maxKey])
    .reverse()
    .limit(limit)
    .toArray();
}

export function findDocuments(db: BookDb, query: string, limit: number): Promise<IssuedDocument[]> {
  return found(db.documents as unknown as Table<IssuedDocument, string>, query, limit);
}

export function findDrafts(db: BookDb, query: string, limit: number): Promise<Draft[]> {
  return found(db.drafts as unknown as Table<Draft, string>, query, limit);
}

export function recentDrafts(db: BookDb, limit: number): Promise<Draft[]> {
  return db.drafts.orderBy('savedAt').reverse().limit(limit).toArray();
}

/** Customers by any part of name, town, number; the first by name when nothing is typed. */
export function findCustomers(db: BookDb, query: string, limit: number): Promise<CustomerRow[]> {
  if (query.trim() === '') return db.customers.orderBy('name').limit(limit).toArray();
  return found(db.customers as unknown as Table<CustomerRow, string>, query, limit);
}

export function findItems(db: BookDb, query: string, limit: number): Promise<ItemRow[]> {
  if (query.trim() === '') return db.items.orderBy('name').limit(limit).toArray();
  return found(db.items as unknown as Table<ItemRow, string>, query, limit);
}

export function findReceipts(db: BookDb, query: string, limit: number): Promise<Receipt[]> {
  if (query.trim() === '') return db.receipts.orderBy('[date+number]').reverse().limit(limit).toArray();
  return found(db.receipts as unknown as Table<Receipt, string>, query, limit);
}

/** Open invoices of a customer, oldest due first. */
export async function openInvoices(db: BookDb, customerId: string): Promise<IssuedDocument[]> {
  const open = await db.documents.where('[customerId+isOpen]').equals([customerId, 1]).toArray();
  return open
    .filter((document) => document.kind === 'invoice')
    .sort((a, b) => (a.dueDate + a.number < b.dueDate + b.number ? -1 : 1));
}

/** Open invoices that were due before a day, oldest first. */
export function overdueInvoices(db: BookDb, today: string, limit: number): Promise<IssuedDocument[]> {
  return db.documents
    .where('[isOpen+kind+dueDate]')
    .between([1, 'invoice', Dexie.minKey], [1, 'invoice', today], true, false)
    .limit(limit)
    .toArray();
}

/** Receipts that settled a document, oldest first. */
export async function receiptsOf(db: BookDb, document: IssuedDocument): Promise<Receipt[]> {
  const all = await db.receipts.where('customerId').equals(document.customerId).toArray();
  return all
    .filter((r) => r.allocations.some((a) => a.documentId === document.id))
    .sort((a, b) => (a.date < b.date ? -1 : 1));
}
