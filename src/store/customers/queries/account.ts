import Dexie from 'dexie';
import type { CustomerRow } from '@/core/book/rows';
import { owedOf } from '@/core/documents/issued';
import type { Currency } from '@/core/kernel/currency';
import type { IsoDate } from '@/core/kernel/date';
import { grouped } from '@/core/kernel/grouped';
import { type Minor, total } from '@/core/kernel/money';
import type { Certificate } from '@/core/parties/certificate';
import {
  type AccountRows,
  type Aged,
  type AgeLimits,
  agedOf,
  type OpenItem,
  openItemsOn,
} from '@/core/settlement/account';
import { isPostDated } from '@/core/settlement/receipt';
import type { Withheld, WithholdingCertificate } from '@/core/settlement/withholding';
import { customerAndChildren } from '../../payments/queries/debts';
import { groupOf } from '../../payments/queries/onAccount';
import type { BookDb } from '../../schema';

/** What stands behind an account, of a customer and of those under it where they are wanted. */
export async function accountRows(db: BookDb, customerIds: readonly string[]): Promise<AccountRows> {
  // What one of a group owes may have been settled by another of it.
  const groups = await Promise.all(customerIds.map((id) => groupOf(db, id)));
  const [documents, receipts, refunds, allocations] = await Promise.all([
    Promise.all(
      customerIds.map((id) => db.documents.where('[customerId+issueDate]').between([id, ''], [id, '~']).toArray()),
    ),
    db.receipts.where('customerId').anyOf(customerIds).toArray(),
    db.refunds.where('customerId').anyOf(customerIds).toArray(),
    db.allocations
      .where('customerId')
      .anyOf([...new Set(groups.flat())])
      .toArray(),
  ]);
  const all = documents.flat();
  const own = new Set(all.map(({ id }) => id));
  // Of the others' allocations those that close a document of theirs move only their own account.
  const ours = allocations.filter(({ closing, debtId }) => closing === undefined || own.has(debtId));
  return { documents: all, receipts, refunds, allocations: ours };
}

type Rows = Pick<AccountRows, 'documents' | 'receipts'>;

/** Documents and receipts that may have been open at the end of a day and are not now, or the other way round. */
async function movedAfter(db: BookDb, on: IsoDate): Promise<Rows> {
  const found = await Promise.all([
    db.allocations.where('date').above(on).toArray(),
    db.allocations.where('undoneOn').above(on).toArray(),
  ]);
  const ids = [...new Set(found.flat().flatMap(({ debtId, creditId }) => [debtId, creditId]))];
  const [documents, receipts] = await Promise.all([db.documents.bulkGet(ids), db.receipts.bulkGet(ids)]);
  return { documents: documents.flatMap((row) => row ?? []), receipts: receipts.flatMap((row) => row ?? []) };
}

/** Each row once. */
const once = <Row extends { readonly id: string }>(rows: readonly Row[]): readonly Row[] => [
  ...new Map(rows.map((row) => [row.id, row])).values(),
];

/** What is open of customers now, and of `later` what is theirs, with all that was made of it. */
async function openRows(db: BookDb, customerIds: readonly string[], later: Rows): Promise<AccountRows> {
  const keys = customerIds.map((id) => [id, 1]);
  const wanted = new Set(customerIds);
  const [documents, receipts] = await Promise.all([
    db.documents.where('[customerId+isOpen]').anyOf(keys).toArray(),
    db.receipts.where('[customerId+isOpen]').anyOf(keys).toArray(),
  ]);
  const theirs = <Row extends { readonly customerId: string }>(all: readonly Row[]) =>
    all.filter(({ customerId }) => wanted.has(customerId));
  return withAllocations(
    db,
    { documents, receipts },
    { documents: theirs(later.documents), receipts: theirs(later.receipts) },
  );
}

/** What is open now, and what moved after the day, with what was made of it up to then. */
async function withAllocations(db: BookDb, open: Rows, later: Rows): Promise<AccountRows> {
  const rows: Rows = {
    documents: once([...open.documents, ...later.documents]),
    receipts: once([...open.receipts, ...later.receipts]),
  };
  // Of what is open as a whole, and was not moved after the day, nothing that was made counts.
  const movedLater = new Set([...later.documents, ...later.receipts].map(({ id }) => id));
  const ids = [
    ...rows.documents.flatMap(({ id, open, content, figures }) =>
      open === owedOf(content, figures) && !movedLater.has(id) ? [] : [id],
    ),
    ...rows.receipts.flatMap(({ id, open, amount }) => (open === amount && !movedLater.has(id) ? [] : [id])),
  ];
  const [asDebt, asCredit] = await Promise.all([
    db.allocations.where('debtId').anyOf(ids).toArray(),
    db.allocations.where('creditId').anyOf(ids).toArray(),
  ]);
  return { ...rows, refunds: [], allocations: once([...asDebt, ...asCredit]) };
}

/** What is open of all customers at the end of a day, with names by id: read through indexes of what is open. */
export async function allOpenOn(
  db: BookDb,
  on: IsoDate,
): Promise<{ readonly items: readonly OpenItem[]; readonly names: ReadonlyMap<string, string> }> {
  const [documents, receipts, later] = await Promise.all([
    db.documents.where('[isOpen+kind+dueDate]').between([1, Dexie.minKey], [1, Dexie.maxKey]).toArray(),
    db.receipts.filter(({ isOpen }) => isOpen === 1).toArray(),
    movedAfter(db, on),
  ]);
  const items = openItemsOn(await withAllocations(db, { documents, receipts }, later), on);
  const customers = await db.customers.bulkGet([...new Set(items.map(({ customerId }) => customerId))]);
  return { items, names: new Map(customers.flatMap((one) => (one === undefined ? [] : [[one.id, one.name]]))) };
}

/** Everything the page of a customer's account shows. */
export interface CustomerAccount {
  readonly rows: AccountRows;
  readonly customer: CustomerRow;
  readonly children: readonly { readonly id: string; readonly name: string }[];
  readonly parent: { readonly id: string; readonly name: string } | null;
  readonly withheld: readonly Withheld[];
  readonly certificates: readonly WithholdingCertificate[];
  /** What frees it from tax. */
  readonly exemptions: readonly Certificate[];
}

/** A customer's account, with that of those under it where `withChildren` says so; null when the book holds no such customer. */
export async function customerAccount(
  db: BookDb,
  customerId: string,
  withChildren: boolean,
): Promise<CustomerAccount | null> {
  const customer = await db.customers.get(customerId);
  if (customer === undefined) return null;
  const ids = withChildren ? await customerAndChildren(db, customerId) : [customerId];
  const [rows, children, parent, withheld, certificates, exemptions] = await Promise.all([
    accountRows(db, ids),
    db.customers.where('parentId').equals(customerId).toArray(),
    customer.parentId === '' ? undefined : db.customers.get(customer.parentId),
    db.withheld.where('customerId').anyOf(ids).toArray(),
    db.withholdingCertificates.where('customerId').anyOf(ids).toArray(),
    db.certificates.where('customerId').equals(customerId).toArray(),
  ]);
  return { customer, rows, children, parent: parent ?? null, withheld, certificates, exemptions };
}

/** One customer on the aged list, in one currency. */
export interface AgedRow {
  readonly customerId: string;
  readonly customerName: string;
  readonly currency: Currency;
  readonly items: readonly OpenItem[];
  readonly aged: Aged;
  /** Cheques that are dated after the day: they do not count yet. */
  readonly cheques: Minor;
}

/** The fewest and the most customers that are looked at in one go, after the first. */
const AT_ONCE = { fewest: 20, most: 2000 };

/** The lines of some customers, in the order they come. */
function agedRows(
  customers: readonly CustomerRow[],
  rows: AccountRows,
  on: IsoDate,
  limits: AgeLimits,
): readonly AgedRow[] {
  const items = grouped(openItemsOn(rows, on), ({ customerId }) => customerId);
  const postDated = rows.receipts.filter(
    ({ date, dishonoured, ...one }) => date <= on && dishonoured === null && isPostDated(one, on),
  );
  return customers.flatMap(({ id, name }) =>
    [...grouped(items.get(id) ?? [], ({ currency }) => currency)].map(([currency, own]) => ({
      customerId: id,
      customerName: name,
      currency: currency as Currency,
      items: own,
      aged: agedOf(own, on, limits),
      cheques: total(
        postDated.flatMap((one) => (one.customerId === id && one.currency === currency ? [one.amount] : [])),
      ),
    })),
  );
}

/**
 * What customers owe by age at the end of a day, by name and currency; `limit` lines at most. Customers are gone through by
 * name until there are as many, each time as many as those before promise to be needed, so that a page reads no more in a
 * book of many.
 */
export async function agedList(
  db: BookDb,
  on: IsoDate,
  limits: AgeLimits,
  limit: number,
): Promise<{ readonly rows: readonly AgedRow[]; readonly more: boolean }> {
  const later = await movedAfter(db, on);
  const rows: AgedRow[] = [];
  let from = 0;
  let size = limit + 1;
  while (rows.length <= limit) {
    const customers = await db.customers.orderBy('name').offset(from).limit(size).toArray();
    from += size;
    if (customers.length === 0) break;
    const open = await openRows(
      db,
      customers.map(({ id }) => id),
      later,
    );
    rows.push(...agedRows(customers, open, on, limits));
    const wanted = Math.ceil(((limit + 1 - rows.length) * from) / Math.max(rows.length, 1));
    size = Math.min(Math.max(wanted, AT_ONCE.fewest), AT_ONCE.most);
  }
  return { rows: rows.slice(0, limit), more: rows.length > limit };
}
