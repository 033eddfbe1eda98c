import Dexie from 'dexie';
import type { Movement } from '@/core/bank/matchIndex';
import type { IsoDate } from '@/core/kernel/date';
import { type Minor, minus, NOTHING, negated, plus, total } from '@/core/kernel/money';
import type { JournalEntry, JournalLine } from '@/core/ledger/entry';
import type { BankAccount } from '@/core/parties/bankAccount';
import type { Receipt } from '@/core/settlement/receipt';
import type { BookDb } from '../../schema';

/** What of each entry bank lines were matched with, in the currency of the account. */
function matchedOf(
  db: BookDb,
  bankAccountId: string,
  entryIds: readonly string[],
): Promise<ReadonlyMap<string, Minor>> {
  return db.bankLines
    .where('entryIds')
    .anyOf(entryIds)
    .distinct()
    .toArray()
    .then((lines) => {
      const sums = new Map<string, Minor>();
      for (const line of lines)
        if (line.bankAccountId === bankAccountId)
          for (const { entryId, amount } of line.matches) sums.set(entryId, plus(sums.get(entryId) ?? NOTHING, amount));
      return sums;
    });
}

/** Entries that were undone as never having been: neither they nor what mirrors them is looked for at the bank. */
function neverWas(db: BookDb, entries: readonly JournalEntry[]): Promise<ReadonlySet<string>> {
  const ofKind = (kind: JournalEntry['kind']) => entries.filter((entry) => entry.kind === kind);
  const sources = (...kinds: JournalEntry['kind'][]) => [
    ...new Set(kinds.flatMap(ofKind).map(({ sourceId }) => sourceId)),
  ];
  return Promise.all([
    db.receipts.bulkGet(sources('receipt', 'dishonour')),
    db.refunds.where('customerId').anyOf(sources('refund')).toArray(),
    db.taxPayments.where('periodId').anyOf(sources('tax-payment')).toArray(),
    db.bankLines.bulkGet(sources('bank')),
  ]).then(([receipts, refunds, payments, booked]) => {
    const standing = new Set(booked.flatMap((line) => line?.entryIds ?? []));
    return new Set([
      ...receipts.flatMap((one) => (one?.dishonoured?.mistake ? [one.entryId, ...one.dishonoured.entryIds] : [])),
      ...[...refunds, ...payments].flatMap(({ entryId, undone }) => (undone === null ? [] : [entryId, undone.entryId])),
      ...ofKind('bank').flatMap(({ id }) => (standing.has(id) ? [] : [id])),
    ]);
  });
}

/** What an entry of an account in another currency moved it by, as the receipt, refund or bank line behind it says. */
function foreignAmounts(
  db: BookDb,
  account: BankAccount,
  entries: readonly JournalEntry[],
): Promise<ReadonlyMap<string, Minor>> {
  const sources = (...kinds: JournalEntry['kind'][]) =>
    entries.flatMap(({ kind, sourceId }) => (kinds.includes(kind) ? [sourceId] : []));
  return Promise.all([
    db.receipts.bulkGet(sources('receipt', 'dishonour')),
    db.refunds.where('customerId').anyOf(sources('refund')).toArray(),
    db.bankLines.where('bankAccountId').equals(account.id).toArray(),
  ]).then(([receipts, refunds, lines]) => {
    const amounts = new Map<string, Minor>();
    for (const receipt of receipts) {
      if (receipt === undefined || receipt.currency !== account.currency) continue;
      const own = receipt.parts.filter((part) => part.account === account.account);
      const came = total(own.map(({ amount, charge }) => minus(amount, charge)));
      amounts.set(receipt.entryId, came);
      const [back] = receipt.dishonoured?.entryIds ?? [];
      if (back !== undefined) amounts.set(back, negated(came));
    }
    for (const { currency, amount, entryId, undone } of refunds) {
      if (currency !== account.currency) continue;
      amounts.set(entryId, negated(amount));
      if (undone !== null) amounts.set(undone.entryId, amount);
    }
    // What was booked from a line is worth what the line says of it.
    for (const { matches } of lines)
      for (const { kind, entryId, amount } of matches) if (kind === 'booking') amounts.set(entryId, amount);
    return amounts;
  });
}

/** By entry, what lines of the ledger moved an account by, in its currency; of another one only what its records say. */
function movedBy(
  db: BookDb,
  account: BankAccount,
  home: string,
  lines: readonly JournalLine[],
): Promise<{ readonly moved: ReadonlyMap<string, Minor>; readonly entries: readonly JournalEntry[] }> {
  const sums = new Map<string, Minor>();
  for (const { entryId, amount } of lines) sums.set(entryId, plus(sums.get(entryId) ?? NOTHING, amount));
  return db.journal.bulkGet([...sums.keys()]).then((found) => {
    const entries = found.flatMap((entry) => entry ?? []);
    if (account.currency === home) return { moved: sums, entries };
    return foreignAmounts(db, account, entries).then((moved) => ({ moved, entries }));
  });
}

/** What the ledger says an account held at the end of a day, in its currency. */
export function bookBalance(db: BookDb, account: BankAccount, home: string, on: IsoDate): Promise<Minor> {
  return linesOf(db, account.account, '', on)
    .then((lines) => movedBy(db, account, home, lines))
    .then(({ moved, entries }) => total(entries.map(({ id }) => moved.get(id) ?? NOTHING)));
}

const linesOf = (db: BookDb, code: string, from: IsoDate | '', until: IsoDate): Promise<JournalLine[]> =>
  db.journalLines.where('[account+date+id]').between([code, from, Dexie.minKey], [code, until, Dexie.maxKey]).toArray();

/** An entry with what of it no bank line has shown. */
interface Unseen {
  readonly entry: JournalEntry;
  readonly left: Minor;
}

/** Entries of these lines of the ledger that bank lines have not shown whole. */
function unseenOf(db: BookDb, account: BankAccount, home: string, lines: readonly JournalLine[]): Promise<Unseen[]> {
  return movedBy(db, account, home, lines).then(({ moved, entries }) =>
    matchedOf(
      db,
      account.id,
      entries.map(({ id }) => id),
    ).then((matched) =>
      entries.flatMap((entry): readonly Unseen[] => {
        const left = minus(moved.get(entry.id) ?? NOTHING, matched.get(entry.id) ?? NOTHING);
        return left === NOTHING ? [] : [{ entry, left }];
      }),
    ),
  );
}

function movementOf({ entry, left }: Unseen, receipt: Receipt | undefined): Movement {
  const { id, date, kind, sourceId, text } = entry;
  return {
    entryId: id,
    date: receipt?.valueDate ?? date,
    amount: left,
    number: receipt?.number ?? text,
    customerId: receipt?.customerId ?? (kind === 'refund' ? sourceId : ''),
    references: receipt === undefined || receipt.reference === '' ? [] : [receipt.reference],
  };
}

/** What the book says moved an account from one day to another and no bank line has shown, oldest first. */
export function unseenMovements(
  db: BookDb,
  account: BankAccount,
  home: string,
  from: IsoDate | '',
  until: IsoDate,
): Promise<readonly Movement[]> {
  return linesOf(db, account.account, from, until)
    .then((lines) => unseenOf(db, account, home, lines))
    .then((open) => {
      const entries = open.map(({ entry }) => entry);
      const sources = entries.map(({ kind, sourceId }) => (kind === 'receipt' ? sourceId : ''));
      return Promise.all([neverWas(db, entries), db.receipts.bulkGet(sources)]).then(([never, receipts]) =>
        open
          .flatMap((one, i) => (never.has(one.entry.id) ? [] : [movementOf(one, receipts[i])]))
          .sort((a, b) => (a.date < b.date ? -1 : a.date > b.date ? 1 : 0)),
      );
    });
}
