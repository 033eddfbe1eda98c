import Dexie from 'dexie';
import type { Movement } from '@/core/bank/matchIndex';
import type { IsoDate } from '@/core/kernel/date';
import { type Minor, minus, NOTHING, plus } from '@/core/kernel/money';
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

/** What a line of the ledger moved an account by, in its currency; null where the line does not say. */
function amountIn(line: JournalLine, account: BankAccount, home: string): Minor | null {
  if (account.currency === home) return line.amount;
  return line.inDocument?.currency === account.currency ? line.inDocument.amount : null;
}

/** An entry with what of it no bank line has shown. */
interface Unseen {
  readonly entry: JournalEntry;
  readonly left: Minor;
}

/** Entries of these lines of the ledger that bank lines have not shown whole. */
function unseenOf(db: BookDb, account: BankAccount, home: string, lines: readonly JournalLine[]): Promise<Unseen[]> {
  const moved = new Map<string, Minor>();
  for (const line of lines) {
    const amount = amountIn(line, account, home);
    if (amount !== null) moved.set(line.entryId, plus(moved.get(line.entryId) ?? NOTHING, amount));
  }
  const ids = [...moved.keys()];
  return Promise.all([matchedOf(db, account.id, ids), db.journal.bulkGet(ids)]).then(([matched, found]) =>
    found.flatMap((entry): readonly Unseen[] => {
      if (entry === undefined) return [];
      const left = minus(moved.get(entry.id) ?? NOTHING, matched.get(entry.id) ?? NOTHING);
      return left === NOTHING ? [] : [{ entry, left }];
    }),
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
  return db.journalLines
    .where('[account+date+id]')
    .between([account.account, from, Dexie.minKey], [account.account, until, Dexie.maxKey])
    .toArray()
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
