import { type Decimal, decimalsOf, isDecimal } from '@/core/kernel/decimal';

/** Most decimals of a unit price, in currency units. */
export const PRICE_DECIMALS = 10;

/** True for text that reads as a price: a decimal with at most ten decimals. */
export function isPrice(value: unknown): value is Decimal {
  return isDecimal(value) && decimalsOf(value) <= PRICE_DECIMALS;
}
