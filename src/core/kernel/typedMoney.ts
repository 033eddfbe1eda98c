import { type Currency, exponentOf } from './currency';
import { readTypedDecimal } from './decimal';
import { type Minor, readMoney } from './money';
import { accept, type Result, refuse } from './result';

/** An amount of money as it is typed; null when it is not one or has too many decimals. */
export function readTypedMoney(text: string, currency: Currency): Minor | null {
  const value = readTypedDecimal(text);
  return value === null ? null : readMoney(value, currency);
}

/** A sample of how an amount is typed in the currency: `12.50`, `12`, `12.500`. */
export function moneySample(currency: Currency): string {
  const decimals = exponentOf(currency);
  return decimals === 0 ? '12' : `12.${'50'.padEnd(decimals, '0').slice(0, decimals)}`;
}

/** An amount as it is typed in a field, refused at its path; an empty field stands for `whenEmpty`, where that is given. */
export function typedMoney(text: string, currency: Currency, path: string, whenEmpty?: Minor): Result<Minor> {
  if (text.trim() === '' && whenEmpty !== undefined) return accept(whenEmpty);
  const read = readTypedMoney(text, currency);
  const wanted = { what: 'money-such-as', sample: moneySample(currency) } as const;
  return read === null ? refuse({ code: 'invalid', path, wanted, found: text }) : accept(read);
}
