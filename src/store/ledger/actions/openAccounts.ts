import { type OpenAccountsInput, openAccounts } from '@/core/decisions/ledger/openAccounts';
import type { Action } from '../../perform';
import { openingBalances } from '../queries/openingBalances';

/** States what accounts stood at when the book was moved in. */
export const stateOpeningBalances: Action<OpenAccountsInput, { readonly entryId: string }> = {
  name: 'state opening balances',
  async decide(db, input, moment) {
    return openAccounts(input, await openingBalances(db), moment);
  },
};
