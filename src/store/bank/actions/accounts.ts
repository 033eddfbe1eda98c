import type { BankRule } from '@/core/bank/bankRule';
import { bankRuleSchema } from '@/core/bank/bankRule';
import type { Reconciliation } from '@/core/bank/reconciliation';
import { type OpeningBalanceInput, openBalance } from '@/core/decisions/bank/openingBalance';
import { isIsoDate } from '@/core/kernel/date';
import { type Minor, NOTHING } from '@/core/kernel/money';
import { accept, refuse } from '@/core/kernel/result';
import { validated } from '@/core/kernel/validate';
import type { BankAccount } from '@/core/parties/bankAccount';
import { loadBook, ratesOn } from '../../load';
import type { Action } from '../../perform';
import { accountOn } from '../queries/reconciliation';

/** States what a bank account held when the book was moved in. */
export const stateOpeningBalance: Action<OpeningBalanceInput, BankAccount> = {
  name: 'opening balance of a bank account',
  async decide(db, input, moment) {
    const [account, chart, { business }] = await Promise.all([
      db.bankAccounts.get(input.bankAccountId),
      db.accounts.toArray(),
      loadBook(db),
    ]);
    const { homeCurrency } = business;
    const currency = account?.currency ?? homeCurrency;
    const rates = currency !== homeCurrency && isIsoDate(input.date) ? await ratesOn(db, [currency], input.date) : null;
    return openBalance(input, { account, chart, homeCurrency, rate: rates?.get(currency) ?? null }, moment);
  },
};

/** Remembers what lines of one text are. */
export const keepBankRule: Action<BankRule, BankRule> = {
  name: 'keep bank rule',
  async decide(db, rule) {
    const checked = validated<BankRule>(bankRuleSchema, rule);
    if (!checked.ok) return checked;
    const account = await db.accounts.get(rule.account);
    if (account === undefined)
      return refuse({ code: 'unknown', path: 'account', wanted: 'choose-account', found: rule.account });
    return accept({
      value: rule,
      changes: { put: { bankRules: [rule] }, audit: { subject: rule.contains, about: [rule.id], after: rule } },
    });
  },
};

export const dropBankRule: Action<{ readonly id: string }, null> = {
  name: 'drop bank rule',
  async decide(db, { id }) {
    const before = await db.bankRules.get(id);
    if (before === undefined) return refuse({ code: 'not-found', path: 'id' });
    return accept({
      value: null,
      changes: { remove: { bankRules: [id] }, audit: { subject: before.contains, about: [id], before } },
    });
  },
};

export interface ReconcileInput {
  readonly bankAccountId: string;
  /** ISO date. */
  readonly date: string;
  /** The balance by the bank's paper, where no file states it. */
  readonly typed: Minor | null;
  /** Why a difference is accepted. */
  readonly reason: string;
}

/** Keeps the reconciliation of an account on a day as evidence; it needs a balance by the bank, a difference a reason. */
export const keepReconciliation: Action<ReconcileInput, Reconciliation> = {
  name: 'reconcile bank account',
  async decide(db, { bankAccountId, date, typed, reason }, moment) {
    if (!isIsoDate(date) || date > moment.today)
      return refuse({ code: 'invalid', path: 'date', wanted: 'give-a-day', found: date });
    const found = await accountOn(db, bankAccountId, date, typed);
    if (found === null) return refuse({ code: 'not-found', path: 'bankAccountId' });
    const { bridge, statedBy } = found;
    if (statedBy === null) return refuse({ code: 'missing', path: 'balance', wanted: 'give-balance-by-statement' });
    if (bridge.difference !== NOTHING && reason.trim() === '')
      return refuse({ code: 'missing', path: 'reason', wanted: 'say-why-difference-is-accepted' });
    const kept: Reconciliation = {
      ...bridge,
      id: moment.newId(),
      bankAccountId,
      reason: bridge.difference === NOTHING ? '' : reason.trim(),
      at: moment.now,
      operator: moment.operator,
    };
    return accept({
      value: kept,
      changes: {
        add: { reconciliations: [kept] },
        audit: { subject: `Bank account on ${date}`, about: [bankAccountId], after: kept },
      },
    });
  },
};
