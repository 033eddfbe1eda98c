import type { OpenAccountsMaterial } from '@/core/decisions/ledger/openAccounts';
import { type Minor, NOTHING, plus } from '@/core/kernel/money';
import type { BookDb } from '../../schema';

/** What was stated of accounts when the book was moved in, and what they are. */
export function openingBalances(db: BookDb): Promise<OpenAccountsMaterial> {
  return Promise.all([
    db.accounts.toArray(),
    db.registrations.toArray(),
    db.bankAccounts.toArray(),
    db.journal.where('[kind+date]').between(['account-opening', ''], ['account-opening', '~']).primaryKeys(),
  ]).then(([chart, registrations, bankAccounts, entries]) =>
    db.journalLines
      .where('entryId')
      .anyOf(entries)
      .toArray()
      .then((lines) => {
        const stated = new Map<string, Minor>();
        for (const { account, amount } of lines) stated.set(account, plus(stated.get(account) ?? NOTHING, amount));
        return { chart, registrations, banks: new Set(bankAccounts.map(({ account }) => account)), stated };
      }),
  );
}
