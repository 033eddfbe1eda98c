import type { Currency } from '@/core/kernel/currency';
import { type Decimal, ratioOf } from '@/core/kernel/decimal';
import { inMinorUnits, type Minor, minor } from '@/core/kernel/money';
import { divide, multiply, type Ratio, whole } from '@/core/kernel/ratio';
import type { Rounding } from '@/core/kernel/rounding';
import type { CalcLine } from '../calcTypes';

const HUNDRED: Ratio = { n: 100n, d: 1n };

export interface LineValue {
  readonly extension: Minor;
  readonly discount: Minor;
  readonly value: Minor;
  readonly quantity: Ratio;
}

/** Exact percentage of a whole number of minor units. */
export function percentOf(percent: Decimal, amount: bigint): Ratio {
  return divide(multiply(whole(amount), ratioOf(percent)), HUNDRED);
}

/** An amount in currency units as minor units; input reading has made sure that nothing is cut. */
export function minorOf(amount: Decimal, currency: Currency): Minor {
  const { n, d } = inMinorUnits(ratioOf(amount), currency);
  return minor(n / d);
}

/** Stage 1: extension R(q × price ÷ base quantity), discount, value. */
export function valueLine(line: CalcLine, currency: Currency, round: Rounding): LineValue {
  const quantity = ratioOf(line.quantity);
  const full = inMinorUnits(multiply(quantity, ratioOf(line.unitPrice)), currency);
  const extension = round(line.baseQuantity === undefined ? full : divide(full, ratioOf(line.baseQuantity)));
  const discount =
    line.discount === undefined
      ? 0n
      : 'percent' in line.discount
        ? round(percentOf(line.discount.percent, extension))
        : minorOf(line.discount.amount, currency);
  return { extension: minor(extension), discount: minor(discount), value: minor(extension - discount), quantity };
}
