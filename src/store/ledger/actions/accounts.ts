import { keepAccount } from '@/core/decisions/ledger/keepAccount';
import type { Account } from '@/core/ledger/account';
import type { Action } from '../../perform';

/** Keeps an account of the chart. */
export const keepChartAccount: Action<{ readonly account: Account; readonly isNew: boolean }, Account> = {
  name: 'keep account',
  async decide(db, { account, isNew }) {
    const [chart, posted] = await Promise.all([
      db.accounts.toArray(),
      db.accountMonths.where('[account+month]').between([account.code, ''], [account.code, '~']).count(),
    ]);
    return keepAccount({ chart, isPosted: posted > 0 }, account, isNew);
  },
};
