import type { Changes, Decision } from '@/core/book/changes';
import type { CustomerRow } from '@/core/book/rows';
import { type BookRows, type BookTable, descriptorOf } from '@/core/book/tables';
import { accept, refuse } from '@/core/kernel/result';
import type { Customer, NamedAddress } from '@/core/parties/customer';
import { NO_RECORDS } from '@/core/tax/taxSetup';
import { recordKept, recordRefusals } from './records';

/** Rows of each table that stand under a customer. */
export type UnderCustomer = { readonly [T in BookTable]?: readonly BookRows[T][] };

export interface MergeMaterial {
  readonly keep: CustomerRow | undefined;
  readonly double: CustomerRow | undefined;
  /** Everything that stands under the double, customers that belong to it among them. */
  readonly under: UnderCustomer;
}

/** The rows of a table moved to another customer. */
function movedRows(table: BookTable, rows: readonly unknown[], customerId: string): readonly object[] {
  const { customers } = descriptorOf(table);
  return customers === undefined ? [] : rows.map((row) => customers.moved(row as never, customerId));
}

/** Joins lists, what is in both once. */
function joined<T>(a: readonly T[], b: readonly T[], keyOf: (item: T) => string): readonly T[] {
  const known = new Set(a.map(keyOf));
  return [...a, ...b.filter((item) => !known.has(keyOf(item)))];
}

/** The kept customer with what only the double knew. */
function together(keep: Customer, double: Customer): Customer {
  const address: NamedAddress = { label: double.name, address: double.address };
  const line = ({ address: { street, city, postalCode } }: NamedAddress) => `${street}|${city}|${postalCode}`;
  const main: NamedAddress = { label: keep.name, address: keep.address };
  const others = double.address.city === '' ? double.addresses : [address, ...double.addresses];
  return {
    ...keep,
    prospect: keep.prospect && double.prospect,
    email: keep.email || double.email,
    contacts: joined(keep.contacts, double.contacts, (c) => `${c.name}|${c.email}`),
    addresses: joined(keep.addresses, others, line).filter((one) => line(one) !== line(main)),
    taxNumbers: joined(keep.taxNumbers, double.taxNumbers, (n) => `${n.country}|${n.number}`),
  };
}

/**
 * Merges two records of one customer: all that stands under the double moves to the kept one. Issued
 * documents still say the name that they were issued to; only where they are found changes.
 */
export function mergeCustomers(material: MergeMaterial): Decision<CustomerRow> {
  const { keep, double, under } = material;
  if (keep === undefined || double === undefined) return refuse({ code: 'not-found', path: 'doubleId' });
  if (keep.id === double.id) return refuse({ code: 'invalid', path: 'doubleId', wanted: 'choose-other-record' });
  if (keep.mergedInto !== '' || double.mergedInto !== '')
    return refuse({ code: 'invalid', path: 'doubleId', wanted: 'not-merged-before' });
  const joined = together(keep, double);
  const merged: CustomerRow = { ...keep, ...joined, parentId: keep.parentId === double.id ? '' : keep.parentId };
  const plain = { before: keep, isNew: false, records: NO_RECORDS, usedUntil: null };
  const refusals = recordRefusals('customers', merged, plain);
  if (refusals.length > 0) return refuse(...refusals);
  const kept = recordKept('customers', merged);
  const gone = recordKept('customers', { ...double, mergedInto: keep.id });
  const tables = (Object.keys(under) as BookTable[]).map((table) => [
    table,
    movedRows(table, under[table] ?? [], keep.id),
  ]);
  const { customers: children = [], ...moved }: NonNullable<Changes['put']> = Object.fromEntries(tables);
  return accept({
    value: kept,
    changes: {
      put: {
        ...moved,
        customers: [kept, gone, ...children.filter(({ id }) => id !== keep.id)],
      },
      audit: {
        subject: `${double.name} into ${keep.name}`,
        about: [keep.id, double.id],
        before: double,
        after: kept,
      },
    },
  });
}
