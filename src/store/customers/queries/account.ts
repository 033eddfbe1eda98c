import type { CustomerRow } from '@/core/book/rows';
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
import type { BookDb } from '../../schema';

/** What stands behind an account, of a customer and of those under it where they are wanted. */
export async function accountRows(db: BookDb, customerIds: readonly string[]): Promise<AccountRows> {
  const [documents, receipts, refunds, allocations] = await Promise.all([
    Promise.all(
      customerIds.map((id) => db.documents.where('[customerId+issueDate]').between([id, ''], [id, '~']).toArray()),
    ),
    db.receipts.where('customerId').anyOf(customerIds).toArray(),
    db.refunds.where('customerId').anyOf(customerIds).toArray(),
    db.allocations.where('customerId').anyOf(customerIds).toArray(),
  ]);
  return { documents: documents.flat(), receipts, refunds, allocations };
}

/**
 * What is open of customers at the end of a day: what is open now, and what was settled, or will be undone, only after it.
 * Rows that are neither are not read.
 */
export async function openRows(db: BookDb, customerIds: readonly string[], on: IsoDate): Promise<AccountRows> {
  const keys = customerIds.map((id) => [id, 1]);
  const wanted = new Set(customerIds);
  const [open, receipts, later, undoneLater] = await Promise.all([
    db.documents.where('[customerId+isOpen]').anyOf(keys).toArray(),
    db.receipts.where('[customerId+isOpen]').anyOf(keys).toArray(),
    db.allocations.where('date').above(on).toArray(),
    db.allocations.where('undoneOn').above(on).toArray(),
  ]);
  const moved = [...later, ...undoneLater].filter(({ customerId }) => wanted.has(customerId));
  const known = new Set([...open, ...receipts].map(({ id }) => id));
  const others = [...new Set(moved.flatMap(({ debtId, creditId }) => [debtId, creditId]))].filter(
    (id) => !known.has(id),
  );
  const [documents, more] = await Promise.all([db.documents.bulkGet(others), db.receipts.bulkGet(others)]);
  const rows = {
    documents: [...open, ...documents.flatMap((row) => row ?? [])],
    receipts: [...receipts, ...more.flatMap((row) => row ?? [])],
  };
  const ids = [...rows.documents, ...rows.receipts].map(({ id }) => id);
  const [asDebt, asCredit] = await Promise.all([
    db.allocations.where('debtId').anyOf(ids).toArray(),
    db.allocations.where('creditId').anyOf(ids).toArray(),
  ]);
  const allocations = [...new Map([...asDebt, ...asCredit].map((one) => [one.id, one])).values()];
  return { ...rows, refunds: [], allocations };
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

/** The customers that hold or owe something now, or did at the end of a day. */
async function customersOpenOn(db: BookDb, on: IsoDate): Promise<ReadonlySet<string>> {
  const [documents, receipts, later, undoneLater] = await Promise.all([
    db.documents.orderBy('[customerId+isOpen]').uniqueKeys(),
    db.receipts.orderBy('[customerId+isOpen]').uniqueKeys(),
    db.allocations.where('date').above(on).toArray(),
    db.allocations.where('undoneOn').above(on).toArray(),
  ]);
  const open = [...documents, ...receipts] as unknown as readonly (readonly [string, 0 | 1])[];
  return new Set([
    ...open.flatMap(([customerId, isOpen]) => (isOpen === 1 ? [customerId] : [])),
    ...[...later, ...undoneLater].map(({ customerId }) => customerId),
  ]);
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

/** What customers owe by age at the end of a day, by name and currency; `limit` customers at most. */
export async function agedList(
  db: BookDb,
  on: IsoDate,
  limits: AgeLimits,
  limit: number,
): Promise<{ readonly rows: readonly AgedRow[]; readonly more: boolean }> {
  const found = await db.customers.bulkGet([...(await customersOpenOn(db, on))]);
  const customers = found.flatMap((one) => one ?? []).sort((a, b) => a.name.localeCompare(b.name));
  const shown = customers.slice(0, limit);
  const rows = await openRows(
    db,
    shown.map(({ id }) => id),
    on,
  );
  const items = grouped(openItemsOn(rows, on), ({ customerId }) => customerId);
  const postDated = rows.receipts.filter(
    ({ date, dishonoured, ...one }) => date <= on && dishonoured === null && isPostDated(one, on),
  );
  return {
    more: customers.length > limit,
    rows: shown.flatMap(({ id, name }) =>
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
    ),
  };
}
