import type { Decision } from '@/core/book/changes';
import { accept, type Refusal, refuse } from '@/core/kernel/result';
import { validated } from '@/core/kernel/validate';
import { type Account, accountFor, freeCode } from '@/core/ledger/account';
import { type BankAccount, bankAccountSchema } from '@/core/parties/bankAccount';

export interface BankAccountMaterial {
  readonly before: BankAccount | undefined;
  readonly isNew: boolean;
  readonly others: readonly BankAccount[];
  readonly chart: readonly Account[];
  /** Lines of its statements, or entries on its account, rest on it. */
  readonly used: boolean;
}

/** Keeps a bank account. Where it names no account of the ledger, one is made for it: 1001 beside 1000. */
export function saveBankAccount(given: BankAccount, material: BankAccountMaterial): Decision<BankAccount> {
  const { before, isNew, others, chart, used } = material;
  const code = given.account || freeCode(chart, Number(accountFor(chart, 'bank')) + 1, 1);
  const value: BankAccount = { ...given, account: code };
  const checked = validated<BankAccount>(bankAccountSchema, value);
  if (!checked.ok) return checked;
  const refusals: Refusal[] = [];
  if (isNew && before !== undefined) refusals.push({ code: 'duplicate', path: 'id', found: value.id });
  const made: readonly Account[] =
    given.account === '' ? [{ code, name: value.name, type: 'asset', role: 'bank' }] : [];
  const account = [...chart, ...made].find((a) => a.code === code);
  if (account?.type !== 'asset')
    refusals.push({ code: 'unknown', path: 'account', wanted: 'choose-account', found: code });
  const sharing = others.find((other) => other.id !== value.id && other.account === code);
  if (sharing !== undefined) refusals.push({ code: 'used', path: 'account', by: sharing.name });
  if (before !== undefined && used) {
    if (before.currency !== value.currency) refusals.push({ code: 'in-use', path: 'currency', keep: before.currency });
    if (before.account !== code) refusals.push({ code: 'in-use', path: 'account', keep: before.account });
  }
  if (refusals.length > 0) return refuse(...refusals);
  return accept({
    value,
    changes: {
      ...(made.length > 0 && { add: { accounts: made } }),
      put: { bankAccounts: [value] },
      audit: { subject: value.name, about: [value.id], ...(before && { before }), after: value },
    },
  });
}
