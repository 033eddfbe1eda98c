import type { Decision, Moment } from '@/core/book/changes';
import { isIsoDate } from '@/core/kernel/date';
import { type Minor, minus, NOTHING, negated, total } from '@/core/kernel/money';
import { accept, type Refusal, refuse } from '@/core/kernel/result';
import { type Account, type AccountRole, accountFor } from '@/core/ledger/account';
import { entryOf } from '@/core/ledger/entry';
import { outputAccountOf } from '@/core/ledger/posting/taxAccounts';
import type { Registration } from '@/core/tax/registration';

export interface OpenAccountsInput {
  /** ISO date: the end of that day. */
  readonly date: string;
  /** What each account stood at: debits above zero. An account that is not named keeps what was stated before. */
  readonly balances: readonly { readonly account: string; readonly amount: Minor }[];
}

export interface OpenAccountsMaterial {
  readonly chart: readonly Account[];
  readonly registrations: readonly Registration[];
  /** Codes of the accounts that bank accounts are kept on: they are opened with their bank account. */
  readonly banks: ReadonlySet<string>;
  /** What was stated before, by account. */
  readonly stated: ReadonlyMap<string, Minor>;
}

/** Accounts whose balance is what something else says: open invoices, returns, revaluations. */
const KEPT_OTHERWISE: readonly AccountRole[] = [
  'receivables',
  'opening',
  'withholding-claims',
  'withholding-refunds',
  'tax-not-yet-due',
  'deferred-income',
  'exchange-unrealised',
];

/** Accounts that opening balances can be stated for. */
export function openableAccounts({
  chart,
  registrations,
  banks,
}: Pick<OpenAccountsMaterial, 'chart' | 'registrations' | 'banks'>): readonly Account[] {
  const taxed = new Set(registrations.map((one) => outputAccountOf(one, chart)));
  return chart.filter(({ code, role }) => !(KEPT_OTHERWISE.includes(role) || banks.has(code) || taxed.has(code)));
}

/**
 * States what accounts stood at when the book was moved in, against the account of opening balances. Stated again, the
 * difference to what was stated before is posted.
 */
export function openAccounts(
  { date, balances }: OpenAccountsInput,
  material: OpenAccountsMaterial,
  moment: Moment,
): Decision<{ readonly entryId: string }> {
  const { chart, stated } = material;
  const openable = new Set(openableAccounts(material).map(({ code }) => code));
  const refusals = balances.flatMap(({ account }, i): readonly Refusal[] =>
    openable.has(account)
      ? []
      : [{ code: 'unknown', path: `balances[${i}]`, wanted: 'choose-account', found: account }],
  );
  if (!isIsoDate(date) || date > moment.today)
    return refuse({ code: 'invalid', path: 'date', wanted: 'give-a-day', found: date }, ...refusals);
  if (refusals.length > 0) return refuse(...refusals);
  const moved = balances.flatMap(({ account, amount }) => {
    const change = minus(amount, stated.get(account) ?? NOTHING);
    return change === NOTHING ? [] : [{ account, amount: change }];
  });
  if (moved.length === 0) return refuse({ code: 'missing', path: 'balances', wanted: 'give-debit-or-credit' });
  const against = negated(total(moved.map(({ amount }) => amount)));
  const entryId = moment.newId();
  const { entry, lines } = entryOf(
    { id: entryId, date, kind: 'account-opening', text: 'Opening balances', sourceId: '', at: moment.now },
    [...moved, ...(against === NOTHING ? [] : [{ account: accountFor(chart, 'opening'), amount: against }])],
  );
  return accept({
    value: { entryId },
    changes: {
      add: { journal: [entry], journalLines: lines },
      audit: { subject: 'Opening balances', after: lines.map(({ account, amount }) => ({ account, amount })) },
    },
  });
}
