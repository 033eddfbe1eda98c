import Dexie from 'dexie';
import { type BankLine, type BankStatement, openOf } from '@/core/bank/bankLine';
import type { Movement } from '@/core/bank/matchIndex';
import { type Bridge, bridgeOf, type Reconciliation } from '@/core/bank/reconciliation';
import type { IsoDate } from '@/core/kernel/date';
import { type Minor, minus, plus, total } from '@/core/kernel/money';
import { loadBook } from '../../load';
import type { BookDb } from '../../schema';
import { bookBalance, unseenMovements } from './movements';

/** An account on a day: its bridge, and what it consists of. */
export interface AccountOn {
  readonly bridge: Bridge;
  /** What says the balance of the statement; where nothing does, it is what the rest comes to, and proves nothing. */
  readonly statedBy: 'file' | 'typed' | null;
  readonly unmatched: readonly BankLine[];
  readonly notSeen: readonly Movement[];
}

const statementsOf = (db: BookDb, bankAccountId: string): Promise<BankStatement[]> =>
  db.bankStatements
    .where('[bankAccountId+until]')
    .between([bankAccountId, Dexie.minKey], [bankAccountId, Dexie.maxKey])
    .toArray();

interface Stating {
  readonly until: IsoDate;
  readonly opening: Minor | null;
  readonly closing: Minor;
}

/** The newest of statements in the order of their days; of several of one day the one that no other goes on from. */
function lastOfDay(statements: readonly Stating[]): Stating | undefined {
  const newest = statements.at(-1);
  const sameDay = statements.filter(({ until }) => until === newest?.until);
  return sameDay.find((one) => !sameDay.some((other) => other !== one && other.opening === one.closing)) ?? newest;
}

/** The balance that the bank's files state for a day: that of the newest statement, moved by the lines around the day. */
function statedBalance(db: BookDb, bankAccountId: string, on: IsoDate): Promise<Minor | null> {
  const between = (from: IsoDate, until: IsoDate) =>
    db.bankLines
      .where('[bankAccountId+date]')
      .between([bankAccountId, from], [bankAccountId, until], false, true)
      .toArray()
      .then((lines) => total(lines.map(({ amount }) => amount)));
  return statementsOf(db, bankAccountId).then((statements) => {
    const stating = statements.flatMap(({ until, opening, closing }) =>
      closing === null ? [] : [{ until, opening, closing }],
    );
    const before = lastOfDay(stating.filter(({ until }) => until <= on));
    if (before !== undefined) return between(before.until, on).then((since) => plus(before.closing, since));
    const [after] = stating;
    if (after === undefined) return null;
    return between(on, after.until).then((since) => minus(after.closing, since));
  });
}

/** What entries up to a day were matched with lines that came later: the bank had not shown them yet. */
function shownLater(db: BookDb, bankAccountId: string, on: IsoDate): Promise<readonly Movement[]> {
  return db.bankLines
    .where('[bankAccountId+date]')
    .between([bankAccountId, on], [bankAccountId, Dexie.maxKey], false, true)
    .toArray()
    .then((later) => {
      const matches = later.flatMap((line) => line.matches);
      return db.journal.bulkGet(matches.map(({ entryId }) => entryId)).then((entries) =>
        matches.flatMap(({ entryId, number, amount }, i): readonly Movement[] => {
          const date = entries[i]?.date;
          return date === undefined || date > on
            ? []
            : [{ entryId, date, amount, number, customerId: '', references: [] }];
        }),
      );
    });
}

/** Holds an account against its statements on a day; `typed` is the balance by the paper where no file states it. */
export function accountOn(
  db: BookDb,
  bankAccountId: string,
  on: IsoDate,
  typed: Minor | null,
): Promise<AccountOn | null> {
  return Promise.all([db.bankAccounts.get(bankAccountId), loadBook(db)]).then(([account, { business }]) => {
    if (account === undefined) return null;
    const { homeCurrency } = business;
    return Promise.all([
      statedBalance(db, account.id, on),
      bookBalance(db, account, homeCurrency, on),
      db.bankLines
        .where('[bankAccountId+isOpen+date]')
        .between([account.id, 1, Dexie.minKey], [account.id, 1, on], true, true)
        .toArray(),
      shownLater(db, account.id, on),
      unseenMovements(db, account, homeCurrency, '', on),
    ]).then(([stated, ledger, unmatched, later, movements]): AccountOn => {
      const notSeen = [...movements, ...later];
      const onlyBank = total(unmatched.map(openOf));
      const onlyBook = total(notSeen.map(({ amount }) => amount));
      const balance = stated ?? typed ?? minus(plus(ledger, onlyBank), onlyBook);
      const bridge = bridgeOf(on, balance, ledger, onlyBank, onlyBook);
      const statedBy = stated !== null ? 'file' : typed !== null ? 'typed' : null;
      return { bridge, statedBy, unmatched, notSeen };
    });
  });
}

/** Reconciliations of an account that were kept, newest day first. */
export function reconciliationsOf(db: BookDb, bankAccountId: string, limit: number): Promise<Reconciliation[]> {
  return db.reconciliations
    .where('[bankAccountId+date]')
    .between([bankAccountId, Dexie.minKey], [bankAccountId, Dexie.maxKey])
    .reverse()
    .limit(limit)
    .toArray();
}
