import { type Currency, exponentOf } from './currency';
import { type Decimal, decimalsOf, trimmed, writeUnits } from './decimal';
import type { Minor } from './money';

function grouped(digits: string): string {
  return digits.replace(/\B(?=(\d{3})+(?!\d))/g, ',');
}

/** Thousands by comma, a true minus: `−1,234.50`. */
function shownDecimal(value: Decimal): string {
  const [whole = '', fraction] = value.replace('-', '').split('.');
  return `${value.startsWith('-') ? '\u2212' : ''}${grouped(whole)}${fraction === undefined ? '' : `.${fraction}`}`;
}

/** An amount for people, without its currency. */
export function showMoney(amount: Minor, currency: Currency): string {
  return shownDecimal(writeUnits(amount, exponentOf(currency)));
}

/** A quantity or percentage for people: no needless zeros. */
export function showNumber(value: Decimal): string {
  return shownDecimal(trimmed(value));
}

/** A unit price: at least the currency's decimals, more where the price has them. */
export function showPrice(value: Decimal, currency: Currency): string {
  const short = trimmed(value);
  const missing = exponentOf(currency) - decimalsOf(short);
  if (missing <= 0) return shownDecimal(short);
  return shownDecimal(`${short}${short.includes('.') ? '' : '.'}${'0'.repeat(missing)}` as Decimal);
}
