import type { Decision, Moment } from '@/core/book/changes';
import type { RateOn } from '@/core/currency/exchangeRate';
import type { Currency } from '@/core/kernel/currency';
import { isIsoDate } from '@/core/kernel/date';
import { NOTHING, negated } from '@/core/kernel/money';
import { accept, refuse } from '@/core/kernel/result';
import { typedMoney } from '@/core/kernel/typedMoney';
import { type Account, accountFor } from '@/core/ledger/account';
import { entryOf } from '@/core/ledger/entry';
import type { BankAccount, BankOpening } from '@/core/parties/bankAccount';
import { worthOn } from '../payments/worth';

export interface OpeningBalanceInput {
  readonly bankAccountId: string;
  /** ISO date: the end of that day. */
  readonly date: string;
  /** In the currency of the account, as typed; below zero for an overdraft. */
  readonly amount: string;
  /** What it was worth in home currency, as typed; empty for the rate of the day. */
  readonly home: string;
}

export interface OpeningBalanceMaterial {
  readonly account: BankAccount | undefined;
  readonly chart: readonly Account[];
  readonly homeCurrency: Currency;
  /** The newest rate of the account's currency on or before the day. */
  readonly rate: RateOn | null;
}

/**
 * What a bank account held when the book was moved in: Dr its account, Cr opening balances. Stated again, what was posted
 * before is taken back on its own day.
 */
export function openBalance(
  input: OpeningBalanceInput,
  { account, chart, homeCurrency, rate }: OpeningBalanceMaterial,
  moment: Moment,
): Decision<BankAccount> {
  if (account === undefined) return refuse({ code: 'not-found', path: 'bankAccountId' });
  const { date } = input;
  if (!isIsoDate(date) || date > moment.today)
    return refuse({ code: 'invalid', path: 'date', wanted: 'give-a-day', found: date });
  const amount = typedMoney(input.amount, account.currency, 'amount');
  if (!amount.ok) return amount;
  const worth = worthOn(account.currency, homeCurrency, '', rate);
  const byRate = worth.ok ? worth.value(amount.value) : undefined;
  const home = account.currency === homeCurrency ? amount : typedMoney(input.home, homeCurrency, 'home', byRate);
  if (!home.ok) return home;
  const sides = (value: typeof home.value) => [
    { account: account.account, amount: value },
    { account: accountFor(chart, 'opening'), amount: negated(value) },
  ];
  const entry = (on: typeof date, text: string, value: typeof home.value) =>
    entryOf(
      { id: moment.newId(), date: on, kind: 'bank-opening', text, sourceId: account.id, at: moment.now },
      sides(value),
    );
  const before = account.opening;
  const undo =
    before === undefined || before.entryId === ''
      ? []
      : [entry(before.date, `Opening balance of ${account.name}, taken back`, negated(before.home))];
  const made = home.value === NOTHING ? [] : [entry(date, `Opening balance of ${account.name}`, home.value)];
  const opening: BankOpening = { date, amount: amount.value, home: home.value, entryId: made[0]?.entry.id ?? '' };
  const value = { ...account, opening };
  const posted = [...undo, ...made];
  return accept({
    value,
    changes: {
      put: { bankAccounts: [value] },
      ...(posted.length > 0 && {
        add: { journal: posted.map((one) => one.entry), journalLines: posted.flatMap((one) => one.lines) },
      }),
      audit: {
        subject: account.name,
        about: [account.id],
        ...(before && { before: { opening: before } }),
        after: { opening },
      },
    },
  });
}
