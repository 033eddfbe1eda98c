import Dexie from 'dexie';
import { type BankLine, openOf } from '@/core/bank/bankLine';
import type { Movement } from '@/core/bank/matchIndex';
import { type Bridge, bridgeOf } from '@/core/bank/reconciliation';
import type { IsoDate } from '@/core/kernel/date';
import { type Minor, minor, minus, NOTHING, plus, total } from '@/core/kernel/money';
import { loadBook } from '../../load';
import type { BookDb } from '../../schema';
import { unseenMovements } from './movements';

/** An account on a day: its bridge, and what it consists of. */
export interface AccountOn {
  readonly bridge: Bridge;
  /** Whether the bank's files say the balance; else it was typed, or is taken as that of the ledger. */
  readonly stated: boolean;
  readonly unmatched: readonly BankLine[];
  readonly notSeen: readonly Movement[];
}

/** The balance that the bank's files state for a day: that of the newest statement, moved by the lines around the day. */
async function statedBalance(db: BookDb, bankAccountId: string, on: IsoDate): Promise<Minor | null> {
  const statements = await db.bankStatements
    .where('[bankAccountId+until]')
    .between([bankAccountId, Dexie.minKey], [bankAccountId, Dexie.maxKey])
    .toArray();
  const stating = statements.filter(({ closing }) => closing !== null);
  const before = stating.filter(({ until }) => until <= on).at(-1);
  const around = before ?? stating.find(({ until }) => until > on);
  if (around?.closing === undefined || around.closing === null) return null;
  const between = (from: IsoDate, until: IsoDate) =>
    db.bankLines
      .where('[bankAccountId+date]')
      .between([bankAccountId, from], [bankAccountId, until], false, true)
      .toArray()
      .then((lines) => total(lines.map(({ amount }) => amount)));
  return around === before
    ? plus(around.closing, await between(around.until, on))
    : minus(around.closing, await between(on, around.until));
}

/** What a ledger account held at the end of a day, in the currency of the bank account. */
async function ledgerBalance(db: BookDb, code: string, foreign: string | null, on: IsoDate): Promise<Minor> {
  let sum = 0n;
  await db.journalLines
    .where('[account+date+id]')
    .between([code, Dexie.minKey, Dexie.minKey], [code, on, Dexie.maxKey])
    .each(({ amount, inDocument }) => {
      if (foreign === null) sum += amount;
      else if (inDocument?.currency === foreign) sum += inDocument.amount;
    });
  return minor(sum);
}

/** Holds an account against its statements on a day; `typed` is the balance by the paper where no file states it. */
export async function accountOn(
  db: BookDb,
  bankAccountId: string,
  on: IsoDate,
  typed: Minor | null,
): Promise<AccountOn | null> {
  const account = await db.bankAccounts.get(bankAccountId);
  if (account === undefined) return null;
  const { homeCurrency } = (await loadBook(db)).business;
  const foreign = account.currency === homeCurrency ? null : account.currency;
  const [stated, ledger, open, later] = await Promise.all([
    statedBalance(db, account.id, on),
    ledgerBalance(db, account.account, foreign, on),
    db.bankLines
      .where('[bankAccountId+isOpen+date]')
      .between([account.id, 1, Dexie.minKey], [account.id, 1, on], true, true)
      .toArray(),
    // Lines of later days whose entries are of this day or before: the bank has not shown them yet.
    db.bankLines
      .where('[bankAccountId+date]')
      .between([account.id, on], [account.id, Dexie.maxKey], false, true)
      .toArray(),
  ]);
  const movements = await unseenMovements(db, account, homeCurrency, '', on);
  const entries = await db.journal.bulkGet(later.flatMap(({ matches }) => matches.map(({ entryId }) => entryId)));
  const inLedger = new Map(
    entries.flatMap((entry) => (entry !== undefined && entry.date <= on ? [[entry.id, entry] as const] : [])),
  );
  const shownLater = later.flatMap(({ matches }) =>
    matches.flatMap(({ entryId, number, amount }): readonly Movement[] => {
      const entry = inLedger.get(entryId);
      return entry === undefined ? [] : [{ entryId, date: entry.date, amount, number, customerId: '', references: [] }];
    }),
  );
  const notSeen = [...movements, ...shownLater];
  const statement = stated ?? typed ?? ledger;
  const unmatched = total(open.map(openOf));
  const bridge = bridgeOf(on, statement, ledger, unmatched, total(notSeen.map(({ amount }) => amount)));
  return {
    bridge,
    stated: stated !== null,
    unmatched: open,
    notSeen: notSeen.filter(({ amount }) => amount !== NOTHING),
  };
}
