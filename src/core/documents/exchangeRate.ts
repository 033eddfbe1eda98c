import * as yup from 'yup';
import { CURRENCIES, type Currency } from '@/core/kernel/currency';
import type { IsoDate } from '@/core/kernel/date';
import { type Decimal, isDecimal, ratioOf } from '@/core/kernel/decimal';
import { dateText, neededText, optionalText } from '@/core/kernel/validate';

/** What one unit of the home currency was worth in another on a day. */
export interface ExchangeRate {
  /** `USD|2026-11-23`. */
  readonly id: string;
  readonly currency: Currency;
  readonly date: IsoDate;
  /** Units of the currency for one unit of the home currency: `1.0850`. */
  readonly perHome: Decimal;
  readonly source: string;
}

export const exchangeRateSchema = yup.object({
  id: neededText('an id'),
  currency: yup.string().oneOf(CURRENCIES, 'Choose a currency.').defined(),
  date: dateText('Give the day of the rate, such as 2026-11-23.'),
  perHome: yup
    .string()
    .defined()
    .test('rate', 'Give a rate above zero, such as 1.0850.', (v) => isDecimal(v) && ratioOf(v).n > 0n),
  source: optionalText(80),
});

/** `<currency>|<day>`, the key of a rate. */
export function exchangeRateId(currency: string, date: string): string {
  return `${currency}|${date}`;
}
