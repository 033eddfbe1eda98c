import type { IsoDate } from '@/core/kernel/date';
import { type Minor, minus, NOTHING, plus, total } from '@/core/kernel/money';

/** What of a line's revenue is earned on a day: an entry from deferred income to the line's account. */
export interface PlanEntry {
  readonly entryId: string;
  readonly date: IsoDate;
  /** In home currency. */
  readonly amount: Minor;
  /** Of it, what credit notes or a cancellation took back. */
  readonly taken: Minor;
}

/** The deferred revenue of one line of an invoice; written whole when it is issued. */
export interface DeferralPlan {
  /** `<document id>:<line id>`. */
  readonly id: string;
  readonly documentId: string;
  readonly documentNumber: string;
  readonly customerId: string;
  readonly customerName: string;
  readonly lineId: string;
  readonly description: string;
  /** Income account of the line. */
  readonly account: string;
  /** Oldest first. */
  readonly entries: readonly PlanEntry[];
  /** Day of its last entry. */
  readonly until: IsoDate;
}

const leftOf = ({ amount, taken }: PlanEntry): Minor => minus(amount, taken);

/** What of a plan still stands on deferred income at the end of a day. */
export function stillDeferred({ entries }: DeferralPlan, on: IsoDate): Minor {
  return total(entries.filter(({ date }) => date > on).map(leftOf));
}

/** What of an entry of a plan is taken back. */
export interface Taken {
  readonly plan: DeferralPlan;
  readonly entry: PlanEntry;
  readonly amount: Minor;
}

/**
 * What a credit of revenue takes back of plans: what they still have to earn after its day, newest first, up to the sum.
 * @param sum what is credited of the account, above zero, in home currency.
 */
export function takenBack(plans: readonly DeferralPlan[], sum: Minor, on: IsoDate): readonly Taken[] {
  const waiting = plans
    .flatMap((plan) => plan.entries.map((entry) => ({ plan, entry })))
    .filter(({ entry }) => entry.date > on && leftOf(entry) > 0n)
    .sort((a, b) =>
      a.entry.date < b.entry.date ? 1 : a.entry.date > b.entry.date ? -1 : a.plan.id < b.plan.id ? 1 : -1,
    );
  let left = sum;
  return waiting.flatMap(({ plan, entry }) => {
    const own = leftOf(entry);
    const amount = own < left ? own : left;
    if (amount <= 0n) return [];
    left = minus(left, amount);
    return [{ plan, entry, amount }];
  });
}

/** The plans with what is taken back of their entries. */
export function withTaken(plans: readonly DeferralPlan[], taken: readonly Taken[]): readonly DeferralPlan[] {
  return plans.flatMap((plan) => {
    const own = taken.filter((one) => one.plan.id === plan.id);
    if (own.length === 0) return [];
    const entries = plan.entries.map((entry) => {
      const amount = total(
        own
          .filter((one) => one.entry.entryId === entry.entryId && one.entry.date === entry.date)
          .map((one) => one.amount),
      );
      return amount === NOTHING ? entry : { ...entry, taken: plus(entry.taken, amount) };
    });
    return [{ ...plan, entries }];
  });
}
