import type { Currency } from '@/core/kernel/currency';
import { type Minor, minor, NOTHING, negated, total, writeMoney } from '@/core/kernel/money';
import { accept, type Refusal, type Result, refuse } from '@/core/kernel/result';
import { moneySample, readTypedMoney } from '@/core/kernel/typedMoney';

/** An amount as it is typed on one side of an entry. */
export interface TypedSide {
  readonly debit: string;
  readonly credit: string;
}

const read = (typed: string, currency: Currency): Minor | null =>
  typed.trim() === '' ? NOTHING : readTypedMoney(typed, currency);

/** An amount as it stands in its field; a credit is below zero. */
export function typedSide(amount: Minor, currency: Currency): TypedSide {
  const shown = (own: Minor) => (own > 0n ? writeMoney(own, currency) : '');
  return { debit: shown(amount), credit: shown(negated(amount)) };
}

/**
 * Debits less credits of each side, in minor units.
 * @param pathOf where a side stands that can not be read, as the form knows it.
 */
export function readSides(
  sides: readonly TypedSide[],
  currency: Currency,
  pathOf: (index: number) => string,
): Result<readonly Minor[]> {
  const amounts = sides.map(({ debit, credit }) => {
    const [left, right] = [read(debit, currency), read(credit, currency)];
    return left === null || right === null ? null : minor(left - right);
  });
  const wanted = { what: 'money-such-as', sample: moneySample(currency) } as const;
  const unread = amounts.flatMap((amount, i): readonly Refusal[] =>
    amount === null ? [{ code: 'invalid', path: pathOf(i), wanted }] : [],
  );
  return unread.length > 0 ? refuse(...unread) : accept(amounts.map((amount) => amount ?? NOTHING));
}

/** Debits less credits of all sides while they are typed; what can not be read yet counts as nothing. */
export function differenceOf(sides: readonly TypedSide[], currency: Currency): Minor {
  return total(
    sides.map(({ debit, credit }) => minor((read(debit, currency) ?? NOTHING) - (read(credit, currency) ?? NOTHING))),
  );
}
