import Dexie from 'dexie';
import type { Currency } from '@/core/kernel/currency';
import { addDays, type IsoDate } from '@/core/kernel/date';
import { grouped } from '@/core/kernel/grouped';
import { type Minor, NOTHING, negated, plus, total } from '@/core/kernel/money';
import type { AgedBy, AgedMaterial } from '@/core/reports/aged';
import { type ExpectedCashMaterial, expectedParts, payingHabits, type Settled } from '@/core/reports/expectedCash';
import { type CustomerLedgerMaterial, ledgerMove } from '@/core/reports/ledgers';
import type { ReportSpan } from '@/core/reports/span';
import type { WithheldMaterial } from '@/core/reports/withheld';
import { type AccountRows, type CustomerMove, customerMoves } from '@/core/settlement/account';
import { allOpenOn } from '../customers/queries/account';
import { loadBook } from '../load';
import type { BookDb } from '../schema';

/** What is open of all customers at the end of a day. */
export async function agedMaterial(db: BookDb, on: IsoDate, by: AgedBy): Promise<AgedMaterial> {
  const [{ business }, open] = await Promise.all([loadBook(db), allOpenOn(db, on)]);
  return { on, by, home: business.homeCurrency, ...open };
}

const NO_ROWS: AccountRows = { documents: [], receipts: [], refunds: [], allocations: [] };

/** Documents that are taken out of the database in one go: what they moved is kept, not they. */
const BATCH = 1000;

/** What documents moved accounts by until a day, a batch at a time. */
async function movesOfDocuments(db: BookDb, until: IsoDate): Promise<readonly CustomerMove[]> {
  const moves: CustomerMove[] = [];
  let after: readonly unknown[] = [Dexie.minKey, Dexie.minKey];
  for (;;) {
    const documents = await db.documents
      .where('[issueDate+number]')
      .between(after, [until, Dexie.maxKey], false, true)
      .limit(BATCH)
      .toArray();
    moves.push(...customerMoves({ ...NO_ROWS, documents }, () => undefined));
    const last = documents.at(-1);
    if (last === undefined || documents.length < BATCH) return moves;
    after = [last.issueDate, last.number];
  }
}

/** What moved the accounts of customers between two days, and what they stood at before. */
export async function customerLedgerMaterial(db: BookDb, { from, until }: ReportSpan): Promise<CustomerLedgerMaterial> {
  const [{ business }, ofDocuments, receipts, refunds, allocations, customers] = await Promise.all([
    loadBook(db),
    movesOfDocuments(db, until),
    db.receipts.toArray(),
    db.refunds.toArray(),
    db.allocations.toArray(),
    db.customers.toArray(),
  ]);
  const owners = new Map([...ofDocuments, ...receipts, ...refunds].map(({ id, customerId }) => [id, customerId]));
  const ownerOf = (id: string) => owners.get(id);
  const others = customerMoves({ documents: [], receipts, refunds, allocations }, ownerOf);
  const all = [...ofDocuments, ...others]
    .map(ledgerMove)
    .filter(({ date }) => date <= until)
    .sort((a, b) => (a.date < b.date ? -1 : a.date > b.date ? 1 : 0));
  const names = new Map(customers.map(({ id, name }) => [id, name]));
  const accounts = [...grouped(all, ({ customerId, currency }) => `${customerId}|${currency}`).values()].flatMap(
    (own) => {
      const [first] = own;
      if (first === undefined) return [];
      const { customerId, currency } = first;
      const opening = own.reduce<Minor>((sum, { date, amount }) => (date < from ? plus(sum, amount) : sum), NOTHING);
      const moves = own.filter(({ date }) => date >= from);
      if (opening === NOTHING && moves.length === 0) return [];
      return [
        { customerId, currency: currency as Currency, name: names.get(customerId) ?? customerId, opening, moves },
      ];
    },
  );
  return { from, until, home: business.homeCurrency, accounts };
}

/** Settlements that tell how a customer usually pays: the newest so many of a year. */
const HABIT = { settlements: 5000, days: 365 };

/** Invoices that were settled as a whole in the year before a day, with when they were. */
async function settledBefore(db: BookDb, on: IsoDate): Promise<readonly Settled[]> {
  const newest = await db.allocations
    .where('date')
    .between(addDays(on, -HABIT.days), on, true, true)
    .reverse()
    .limit(HABIT.settlements)
    .toArray();
  // The newest comes first: it is the one that settled the rest.
  const lastOn = new Map<string, IsoDate>();
  for (const { debtId, date, undone, creditKind } of newest)
    if (undone === null && creditKind === 'receipt' && !lastOn.has(debtId)) lastOn.set(debtId, date);
  const debts = await db.documents.bulkGet([...lastOn.keys()]);
  return debts.flatMap((debt) => {
    const paidOn = debt === undefined ? undefined : lastOn.get(debt.id);
    return debt === undefined || paidOn === undefined || debt.isOpen === 1
      ? []
      : [{ customerId: debt.customerId, due: debt.content.dueDate || debt.dueDate, on: paidOn }];
  });
}

/** What open invoices are expected to bring in from a day on. */
export async function expectedCashMaterial(db: BookDb, on: IsoDate): Promise<ExpectedCashMaterial> {
  const [{ business }, open, receipts, settled] = await Promise.all([
    loadBook(db),
    db.documents.where('[isOpen+kind+dueDate]').between([1, Dexie.minKey], [1, Dexie.maxKey]).toArray(),
    db.receipts.filter(({ isOpen }) => isOpen === 1).toArray(),
    settledBefore(db, on),
  ]);
  const habits = payingHabits(settled);
  const owed = open.filter(({ open: left, issueDate }) => left > 0n && issueDate <= on);
  const keeping = owed.filter(({ content }) => (content.withholding ?? []).length > 0);
  const withheld = await db.withheld
    .where('documentId')
    .anyOf(keeping.map(({ id }) => id))
    .toArray();
  const byDocument = grouped(withheld, ({ documentId }) => documentId);
  const credits = total(open.flatMap(({ open: left, openHome }) => (left < 0n ? [negated(openHome)] : [])));
  return {
    on,
    home: business.homeCurrency,
    parts: owed.flatMap((one) => expectedParts(one, byDocument.get(one.id) ?? [], habits.get(one.customerId) ?? 0)),
    held: plus(credits, total(receipts.map(({ openHome }) => openHome))),
  };
}

/** What customers kept back between two days, and stands. */
export async function withheldMaterial(db: BookDb, { from, until }: ReportSpan): Promise<WithheldMaterial> {
  const [{ business }, all] = await Promise.all([loadBook(db), db.withheld.toArray()]);
  const withheld = all
    .filter(({ date, voidOn }) => from <= date && date <= until && voidOn === '')
    .sort((a, b) => (a.date + a.id < b.date + b.id ? -1 : 1));
  return { from, until, home: business.homeCurrency, withheld };
}
