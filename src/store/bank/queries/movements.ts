import Dexie from 'dexie';
import type { Movement } from '@/core/bank/matchIndex';
import type { Currency } from '@/core/kernel/currency';
import type { IsoDate } from '@/core/kernel/date';
import { type Minor, minus, NOTHING, negated, plus, total } from '@/core/kernel/money';
import { accountFor } from '@/core/ledger/account';
import type { JournalEntry, JournalLine } from '@/core/ledger/entry';
import { type BankAccount, blankBankAccount } from '@/core/parties/bankAccount';
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
    if (account.opening !== undefined) amounts.set(account.opening.entryId, account.opening.amount);
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

const oldestFirst = (a: Movement, b: Movement): number => (a.date < b.date ? -1 : a.date > b.date ? 1 : 0);

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
        // The bank shows what it held before the book in its balance, never as a line.
        if (entry.kind === 'bank-opening') return [];
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
        open.flatMap((one, i) => (never.has(one.entry.id) ? [] : [movementOf(one, receipts[i])])).sort(oldestFirst),
      );
    });
}

/**
 * Card payments that no payout has brought, oldest first. One that was disputed before it was paid out is none; of one that
 * was disputed after, what comes off the next payout.
 */
export function cardTakings(db: BookDb, home: Currency, until: IsoDate): Promise<readonly Movement[]> {
  return db.accounts.toArray().then((chart) => {
    const card = blankBankAccount('', '', home, accountFor(chart, 'card'));
    return linesOf(db, card.account, '', until)
      .then((lines) => unseenOf(db, card, home, lines))
      .then((open) => {
        const ofCards = open.filter(({ entry: { kind } }) => kind === 'receipt' || kind === 'dishonour');
        return Promise.all([
          db.bankLines
            .where('entryIds')
            .anyOf(ofCards.map(({ entry }) => entry.id))
            .distinct()
            .toArray(),
          db.receipts.bulkGet(ofCards.map(({ entry }) => entry.sourceId)),
        ]).then(([covering, receipts]) => {
          const covered = new Set(covering.flatMap(({ entryIds }) => entryIds));
          return ofCards
            .flatMap((one, i) => {
              const receipt = receipts[i];
              const { id, kind } = one.entry;
              if (receipt === undefined || covered.has(id)) return [];
              const paidOut = covered.has(receipt.entryId);
              const counts = kind === 'receipt' ? receipt.dishonoured === null : paidOut;
              return counts ? [movementOf(one, kind === 'receipt' ? receipt : undefined)] : [];
            })
            .sort(oldestFirst);
        });
      });
  });
}
