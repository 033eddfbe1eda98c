import Dexie from 'dexie';
import type { CustomerRow } from '@/core/book/rows';
import type { CsvTable } from '@/core/book/tables';
import type { DraftsMaterial } from '@/core/files/draftsFile';
import { type CsvRecords, customerCall, type ImportMaterial } from '@/core/files/importTable';
import type { IsoDate } from '@/core/kernel/date';
import { loadRecords } from '../../load';
import type { BookDb } from '../../schema';
import { usedUntil } from '../actions/taxSetup';

/** Customers by their ids, and by numbers and names that only one of them has. */
export function callsOf(customers: readonly CustomerRow[]): ReadonlyMap<string, string | null> {
  const calls = new Map<string, string | null>();
  for (const { id, name, taxNumbers } of customers)
    for (const call of new Set([name, ...taxNumbers.map(({ number }) => number)].map(customerCall)))
      calls.set(call, calls.has(call) ? null : id);
  for (const { id } of customers) calls.set(customerCall(id), id);
  return calls;
}

/** What an import of a table is held against: the whole table, and what its records rest on. */
export async function importMaterial<T extends CsvTable>(db: BookDb, table: T): Promise<ImportMaterial<T>> {
  const [rows, records, customers, accounts] = await Promise.all([
    db.table<CsvRecords[T]>(table).toArray(),
    loadRecords(db),
    table === 'certificates' ? db.customers.toArray() : [],
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
    customers: callsOf(customers),
    accounts: new Set(accounts),
  };
}

/** What a file of documents is read against. */
export async function draftsMaterial(db: BookDb): Promise<Omit<DraftsMaterial, 'today' | 'newId'>> {
  const [customers, [registration], accounts, codes] = await Promise.all([
    db.customers.toArray(),
    db.registrations.toArray(),
    db.accounts.orderBy('code').toArray(),
    db.taxCodes.toCollection().primaryKeys(),
  ]);
  return {
    registrationId: registration?.id ?? '',
    account: accounts.find(({ type, role }) => type === 'income' && role === '')?.code ?? '',
    accounts: new Set(accounts.map(({ code }) => code)),
    codes: new Set(codes),
    customers: callsOf(customers),
  };
}

/** What a file of opening invoices is held against: customers, by what it may call them, and the opening invoices there are. */
export async function openingMaterial(db: BookDb) {
  const [customers, openings] = await Promise.all([
    db.customers.toArray(),
    db.documents.where('[kind+issueDate]').between(['opening', Dexie.minKey], ['opening', Dexie.maxKey]).toArray(),
  ]);
  return {
    customers: new Map(customers.map((customer) => [customer.id, customer])),
    calls: callsOf(customers),
    known: new Set(openings.map(({ customerId, content }) => `${customerId} ${content.buyerReference}`)),
  };
}
