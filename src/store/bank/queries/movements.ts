import Dexie from 'dexie';
import type { Movement } from '@/core/bank/matchIndex';
import type { IsoDate } from '@/core/kernel/date';
import { type Minor, minor, minus, NOTHING, plus } from '@/core/kernel/money';
import type { JournalEntry, JournalLine } from '@/core/ledger/entry';
import type { BankAccount } from '@/core/parties/bankAccount';
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
async function neverWas(db: BookDb, entries: readonly JournalEntry[]): Promise<ReadonlySet<string>> {
  const ofKind = (kind: JournalEntry['kind']) => entries.filter((entry) => entry.kind === kind);
  const sources = (...kinds: JournalEntry['kind'][]) => [
    ...new Set(kinds.flatMap(ofKind).map(({ sourceId }) => sourceId)),
  ];
  const [receipts, refunds, payments, booked] = await Promise.all([
    db.receipts.bulkGet(sources('receipt', 'dishonour')),
    db.refunds.where('customerId').anyOf(sources('refund')).toArray(),
    db.taxPayments.where('periodId').anyOf(sources('tax-payment')).toArray(),
    db.bankLines.bulkGet(sources('bank')),
  ]);
  const standing = new Set(booked.flatMap((line) => line?.entryIds ?? []));
  return new Set([
    ...receipts.flatMap((one) => (one?.dishonoured?.mistake ? [one.entryId, ...one.dishonoured.entryIds] : [])),
    ...[...refunds, ...payments].flatMap(({ entryId, undone }) => (undone === null ? [] : [entryId, undone.entryId])),
    ...ofKind('bank').flatMap(({ id }) => (standing.has(id) ? [] : [id])),
  ]);
}

/** What a line of the ledger moved an account by, in its currency; null where the line does not say. */
function amountIn(line: JournalLine, account: BankAccount, home: string): Minor | null {
  if (account.currency === home) return line.amount;
  return line.inDocument?.currency === account.currency ? line.inDocument.amount : null;
}

/**
 * What the book says moved an account from one day to another and no bank line has shown, oldest first; `own` is an entry's
 * receipt, refund or payment where it has one.
 */
export async function unseenMovements(
  db: BookDb,
  account: BankAccount,
  home: string,
  from: IsoDate | '',
  until: IsoDate,
): Promise<readonly Movement[]> {
  const lines = await db.journalLines
    .where('[account+date+id]')
    .between([account.account, from, Dexie.minKey], [account.account, until, Dexie.maxKey])
    .toArray();
  const moved = new Map<string, Minor>();
  for (const line of lines) {
    const amount = amountIn(line, account, home);
    if (amount !== null) moved.set(line.entryId, plus(moved.get(line.entryId) ?? NOTHING, amount));
  }
  const ids = [...moved.keys()];
  const [matched, found] = await Promise.all([matchedOf(db, account.id, ids), db.journal.bulkGet(ids)]);
  const open = found.flatMap((entry) => {
    if (entry === undefined) return [];
    const left = minus(moved.get(entry.id) ?? NOTHING, matched.get(entry.id) ?? NOTHING);
    return left === NOTHING ? [] : [{ entry, left }];
  });
  const entries = open.map(({ entry }) => entry);
  const never = await neverWas(db, entries);
  const receipts = await db.receipts.bulkGet(entries.map(({ kind, sourceId }) => (kind === 'receipt' ? sourceId : '')));
  return open
    .flatMap(({ entry, left }, i): readonly Movement[] => {
      if (never.has(entry.id)) return [];
      const receipt = receipts[i];
      const { kind, sourceId } = entry;
      return [
        {
          entryId: entry.id,
          date: receipt?.valueDate ?? entry.date,
          amount: minor(left),
          number: receipt?.number ?? entry.text,
          customerId: receipt?.customerId ?? (kind === 'refund' ? sourceId : ''),
          references: receipt === undefined || receipt.reference === '' ? [] : [receipt.reference],
        },
      ];
    })
    .sort((a, b) => (a.date < b.date ? -1 : a.date > b.date ? 1 : 0));
}
