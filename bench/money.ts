import type { IssuedDocument } from '@/core/documents/issued';
import { addDays, isoDate } from '@/core/kernel/date';
import { minor, NOTHING } from '@/core/kernel/money';
import { blankCustomer } from '@/core/parties/customer';
import { AGE_LIMITS } from '@/core/settlement/account';
import { agedList, customerAccount } from '@/store/customers/queries/account';
import { present } from '@/store/load';
import { recordReceipt } from '@/store/payments/actions/recordReceipt';
import { preview } from '@/store/perform';
import { keepDraft } from '@/store/sales/actions/drafts';
import { issueInvoice } from '@/store/sales/actions/issueInvoice';
import type { BookDb } from '@/store/schema';
import { act, draftOf, freshBook, KEPT_FROM, momentOn, rowsRead, timed } from './books';

const TODAY = isoDate('2026-12-31');
const AT_ONCE = 2000;
const PAYER = 'payer';
const ACCOUNT = 'account';
/** Documents of the customer whose account is looked at. */
const OF_ACCOUNT = 5000;
const INVOICES = 20;
/** One in ten documents is open; a customer has ten. */
const OF_CUSTOMER = 10;

/** A copy of an invoice for a customer, open or settled. */
function likeOf(one: IssuedDocument, id: string, i: number, customerId: string, isOpen: boolean): IssuedDocument {
  return {
    ...one,
    id,
    customerId,
    number: id.toUpperCase(),
    issueDate: addDays(KEPT_FROM, i % 330),
    dueDate: addDays(KEPT_FROM, (i % 330) + 30),
    seriesId: 'many',
    position: i + 1,
    familyId: id,
    words: [],
    isOpen: isOpen ? 1 : 0,
    open: isOpen ? one.open : NOTHING,
    openHome: isOpen ? one.openHome : NOTHING,
    received: isOpen ? NOTHING : one.open,
    state: isOpen ? 'issued' : 'paid',
  };
}

async function addAll(db: BookDb, rows: readonly IssuedDocument[]): Promise<void> {
  for (let from = 0; from < rows.length; from += AT_ONCE) await db.documents.bulkAdd(rows.slice(from, from + AT_ONCE));
}

/** A book with many documents of many customers, one with a long account, one that pays 20 invoices at once. */
async function moneyBook(name: string, count: number): Promise<BookDb> {
  const db = await freshBook(name);
  const draft = await act(db, keepDraft, draftOf(1, isoDate('2026-01-15')), KEPT_FROM);
  const { id } = await act(db, issueInvoice, { draftId: draft.id }, isoDate('2026-01-15'));
  const one = present(await db.documents.get(id), 'a document');
  const customers = [PAYER, ACCOUNT, ...Array.from({ length: count / OF_CUSTOMER }, (_, c) => `customer-${c}`)];
  await db.customers.bulkAdd(customers.map((each) => ({ ...blankCustomer(each, each, 'IE'), keys: [] })));
  const many = Array.from({ length: count }, (_, i) =>
    likeOf(one, `many-${i}`, i, `customer-${Math.floor(i / OF_CUSTOMER)}`, i % OF_CUSTOMER === 0),
  );
  const account = Array.from({ length: OF_ACCOUNT }, (_, i) => likeOf(one, `account-${i}`, i, ACCOUNT, i % 50 === 0));
  const paid = Array.from({ length: INVOICES }, (_, i) => likeOf(one, `paid-${i}`, i, PAYER, true));
  await addAll(db, [...many, ...account, ...paid]);
  return db;
}

/** (i) A receipt over 20 invoices, the aged list and a long account in a large book, against the same in a small one. */
export async function moneyAgainstSmall(large: number, small: number) {
  const little = await moneyBook('bench-money-small', small);
  const big = await moneyBook('bench-money-large', large);
  const receiptIn = async (db: BookDb) => {
    const rows = await Promise.all(
      Array.from({ length: INVOICES }, async (_, i) => present(await db.documents.get(`paid-${i}`), 'it')),
    );
    const to = rows.map(({ id, number }) => ({ documentId: id, number, money: minor(100n) }));
    const parts = [{ method: 'bank' as const, amount: minor(100n * BigInt(INVOICES)) }];
    const input = { customerId: PAYER, date: TODAY, reference: '', parts, to };
    const planned = await preview(db, recordReceipt, input, momentOn(TODAY));
    if (!planned.ok) throw new Error(JSON.stringify(planned.refusals));
    const written = [planned.value.add, planned.value.put].flatMap((tables) =>
      Object.values(tables ?? {}).map((table) => table.length),
    );
    return {
      written: written.reduce((sum, length) => sum + length, 0),
      read: await rowsRead(db, () => act(db, recordReceipt, input, TODAY)),
      time: await timed(15, () => act(db, recordReceipt, input, TODAY)),
    };
  };
  const receipt = await receiptIn(big);
  const smallReceipt = await receiptIn(little);
  const ways = [
    ['aged list, first page', (db: BookDb) => agedList(db, TODAY, AGE_LIMITS, 100)],
    ['account of 5,000 documents', (db: BookDb) => customerAccount(db, ACCOUNT, true)],
  ] as const;
  const reads = [];
  for (const [name, read] of ways)
    reads.push({
      name,
      read: await rowsRead(big, () => read(big)),
      smallRead: await rowsRead(little, () => read(little)),
      time: await timed(9, () => read(big)),
      smallTime: await timed(9, () => read(little)),
    });
  return { receipt, smallReceipt, reads };
}
