import type { IsoDate } from '@/core/kernel/date';
import { type Minor, minus, NOTHING, total } from '@/core/kernel/money';

/** Money that went to an authority for a filed return, or came back from it. */
export interface TaxPayment {
  readonly id: string;
  readonly registrationId: string;
  /** Period whose return it pays. */
  readonly periodId: string;
  readonly date: IsoDate;
  /** What of the return it settles, in home currency: above zero paid to the authority, below zero refunded by it. */
  readonly amount: Minor;
  /** Charged with it by the authority, each on its own account; above zero. */
  readonly charges: readonly {
    readonly kind: 'penalty' | 'interest';
    readonly account: string;
    readonly amount: Minor;
  }[];
  /** Code of the account that the money left or reached. */
  readonly account: string;
  /** What left the account, or below zero reached it, in home currency, charges included. */
  readonly money: Minor;
  readonly reference: string;
  readonly entryId: string;
  /** Null while it stands. */
  readonly undone: { readonly on: IsoDate; readonly entryId: string } | null;
}

/** A filed return as the authority is owed it. */
export interface OwedReturn {
  readonly periodId: string;
  /** In home currency as the filing posted it; below zero the authority owes us. */
  readonly payable: Minor;
  readonly payments: readonly Pick<TaxPayment, 'amount' | 'undone'>[];
}

const standing = (payments: OwedReturn['payments']): Minor =>
  total(payments.flatMap(({ amount, undone }) => (undone === null ? [amount] : [])));

/** What is left of one return; below zero the authority still owes it. */
export function leftOf({ payable, payments }: OwedReturn): Minor {
  return minus(payable, standing(payments));
}

/**
 * What one return can still be paid with: what is left of it, and, as withheld tax may have been set against all of them,
 * not more than is left of all returns together. Of a return that the authority owes, what it still owes, below zero.
 * @param setOff withheld tax that was set against the returns of the registration, in home currency.
 */
export function payableNow(one: OwedReturn, all: readonly OwedReturn[], setOff: Minor): Minor {
  const own = leftOf(one);
  if (own <= 0n) return own;
  const together = minus(total(all.map(leftOf)), setOff);
  const most = own < together ? own : together;
  return most < 0n ? NOTHING : most;
}
