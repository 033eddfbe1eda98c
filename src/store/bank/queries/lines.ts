import Dexie from 'dexie';
import type { BankLine, BankStatement } from '@/core/bank/bankLine';
import type { BankAccount } from '@/core/parties/bankAccount';
import type { BookDb } from '../../schema';

const standing = (db: BookDb, bankAccountId: string, isOpen: 0 | 1) =>
  db.bankLines
    .where('[bankAccountId+isOpen+date]')
    .between([bankAccountId, isOpen, Dexie.minKey], [bankAccountId, isOpen, Dexie.maxKey]);

/** Lines of an account that nothing was found for yet, oldest first. */
export function openLines(db: BookDb, bankAccountId: string, limit: number): Promise<BankLine[]> {
  return standing(db, bankAccountId, 1).limit(limit).toArray();
}

/** Lines of an account that are matched, newest first. */
export function matchedLines(db: BookDb, bankAccountId: string, limit: number): Promise<BankLine[]> {
  return standing(db, bankAccountId, 0).reverse().limit(limit).toArray();
}

/** Statements of an account that were imported, the latest days first, with how many of their lines are matched. */
export async function statementsRead(
  db: BookDb,
  bankAccountId: string,
  limit: number,
): Promise<readonly { readonly statement: BankStatement; readonly matched: number }[]> {
  const statements = await db.bankStatements
    .where('[bankAccountId+until]')
    .between([bankAccountId, Dexie.minKey], [bankAccountId, Dexie.maxKey])
    .reverse()
    .limit(limit)
    .toArray();
  return Promise.all(
    statements.map(async (statement) => {
      const lines = await db.bankLines.where('statementId').equals(statement.id).toArray();
      return { statement, matched: lines.filter(({ matches }) => matches.length > 0).length };
    }),
  );
}

/** A bank account with how many of its lines wait, and its newest statement. */
export interface AccountStanding {
  readonly account: BankAccount;
  readonly open: number;
  readonly newest: BankStatement | undefined;
}

export async function bankStandings(db: BookDb): Promise<readonly AccountStanding[]> {
  const accounts = (await db.bankAccounts.toArray()).sort((a, b) => (a.account < b.account ? -1 : 1));
  return Promise.all(
    accounts.map(async (account) => ({
      account,
      open: await standing(db, account.id, 1).count(),
      newest: await db.bankStatements
        .where('[bankAccountId+until]')
        .between([account.id, Dexie.minKey], [account.id, Dexie.maxKey])
        .last(),
    })),
  );
}
