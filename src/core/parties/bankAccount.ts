import * as yup from 'yup';
import { CURRENCIES, type Currency } from '@/core/kernel/currency';
import type { IsoDate } from '@/core/kernel/date';
import type { Minor } from '@/core/kernel/money';
import { neededText, optionalText } from '@/core/kernel/validate';
import { wanted } from '@/core/kernel/wanted';
import { isBic, isIban } from './iban';
import { type LocalKind, localAccountOf, localAccountSchema } from './localAccount';
import { type StatementColumns, statementColumnsSchema } from './statementColumns';

/** What an account held when the book was moved in. */
export interface BankOpening {
  /** At the end of the day. */
  readonly date: IsoDate;
  /** In the currency of the account, and what it was worth in home currency. */
  readonly amount: Minor;
  readonly home: Minor;
  /** Empty where it held nothing. */
  readonly entryId: string;
}

/** An account of ours with a bank: customers pay into it, and its statements are reconciled. */
export interface BankAccount {
  readonly id: string;
  readonly name: string;
  readonly currency: Currency;
  /** Code of its account in the ledger; no two bank accounts share one. */
  readonly account: string;
  readonly iban: string;
  readonly bic: string;
  /** The account by what banks without IBAN call it; without a kind for none. */
  readonly local: { readonly kind: LocalKind | ''; readonly code: string; readonly number: string };
  /** Kept, but not offered any more. */
  readonly archived?: boolean;
  /** Missing until it was entered. */
  readonly opening?: BankOpening;
  /** How its CSV statements are read; missing until one was. */
  readonly columns?: StatementColumns;
}

/** An account that nothing is known of yet. */
export function blankBankAccount(id: string, name: string, currency: Currency, account: string): BankAccount {
  return { id, name, currency, account, iban: '', bic: '', local: { kind: '', code: '', number: '' } };
}

export const bankAccountSchema = yup.object({
  id: neededText('give-id'),
  name: neededText('give-a-name', 60),
  currency: yup.string().oneOf(CURRENCIES, wanted('choose-currency')).defined(),
  // In a form empty for one that is made with it.
  account: optionalText(20),
  iban: optionalText(42).test('iban', wanted('iban-of-statement'), (v) => v.trim() === '' || isIban(v)),
  bic: optionalText(11).test('bic', wanted('bic-of-8-or-11'), (v) => v === '' || isBic(v)),
  local: localAccountSchema.defined(),
  archived: yup.boolean(),
  // Made by an action of its own; a form hands it back as it is.
  opening: yup.mixed<BankOpening>(),
  columns: statementColumnsSchema.default(undefined),
});

/** Whether customers can be told to pay into it. */
export function isPayable({ iban, local }: BankAccount): boolean {
  return iban.trim() !== '' || localAccountOf(local) !== undefined;
}

/**
 * The account that a document is paid into: the first of `ids` (its own choice, its style's) that is there; else the
 * first in its currency, by their accounts in the ledger; else the first in home currency. Undefined where there is none.
 */
export function bankAccountFor(
  accounts: readonly BankAccount[],
  currency: string,
  home: string,
  ...ids: readonly (string | undefined)[]
): BankAccount | undefined {
  for (const id of ids) {
    const chosen = accounts.find((account) => account.id === id);
    if (chosen !== undefined) return chosen;
  }
  const offered = accounts
    .filter((account) => account.archived !== true && isPayable(account))
    .sort((a, b) => (a.account < b.account ? -1 : 1));
  return offered.find((account) => account.currency === currency) ?? offered.find(({ currency: c }) => c === home);
}
