import type { DeferralPlan, Taken } from '@/core/documents/deferralPlan';
import type { IsoDate } from '@/core/kernel/date';
import { grouped } from '@/core/kernel/grouped';
import { type Minor, negated, total } from '@/core/kernel/money';
import { type Account, accountFor } from '../account';
import { entryOf, type PostedEntry, type Side } from '../entry';

const earning = (account: string, amount: Minor, deferred: string): readonly Side[] => [
  { account: deferred, amount },
  { account, amount: negated(amount) },
];

interface Posting {
  readonly chart: readonly Account[];
  /** Id of the document behind the entries. */
  readonly sourceId: string;
  readonly text: string;
  readonly at: string;
}

/** The entries of plans, one for each id and day: from deferred income to the accounts of the lines. */
export function planEntries(
  plans: readonly DeferralPlan[],
  { chart, sourceId, text, at }: Posting,
): readonly PostedEntry[] {
  const deferred = accountFor(chart, 'deferred-income');
  const parts = plans.flatMap(({ account, entries }) => entries.map((entry) => ({ account, entry })));
  return [...grouped(parts, ({ entry }) => entry.entryId)].flatMap(([id, own]) => {
    const date = own[0]?.entry.date;
    if (date === undefined) return [];
    const sides = own.flatMap(({ account, entry }) => earning(account, entry.amount, deferred));
    return [entryOf({ id, date, kind: 'deferral', text, sourceId, at }, sides)];
  });
}

/** The entries that take back what plans had to earn, each on the day that it was to be earned. */
export function takenEntries(
  taken: readonly Taken[],
  { chart, sourceId, text, at }: Posting,
  newId: () => string,
): readonly PostedEntry[] {
  const deferred = accountFor(chart, 'deferred-income');
  return [...grouped(taken, ({ entry }) => entry.date)].map(([date, own]) =>
    entryOf(
      { id: newId(), date: date as IsoDate, kind: 'deferral', text, sourceId, at },
      own.flatMap(({ plan, amount }) => earning(plan.account, negated(amount), deferred)),
    ),
  );
}

/** What is moved from accounts of lines to deferred income, or for a credit note back. */
export interface DeferredNet {
  readonly account: string;
  readonly home: Minor;
  readonly own: Minor;
}

/** Sums by account. */
export function byAccount(nets: readonly DeferredNet[]): ReadonlyMap<string, Pick<DeferredNet, 'home' | 'own'>> {
  return new Map(
    [...grouped(nets, ({ account }) => account)].map(([account, own]) => [
      account,
      { home: total(own.map(({ home }) => home)), own: total(own.map((one) => one.own)) },
    ]),
  );
}
