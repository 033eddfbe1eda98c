import * as yup from 'yup';
import { CURRENCIES, type Currency } from '@/core/kernel/currency';
import type { IsoDate } from '@/core/kernel/date';
import { type Decimal, isDecimal, ratioOf, tenTo, trimmed, writeUnits } from '@/core/kernel/decimal';
import { divide, multiply, ONE, type Ratio } from '@/core/kernel/ratio';
import { halfUp } from '@/core/kernel/rounding';
import { dateText, neededText, optionalText } from '@/core/kernel/validate';
import { wanted } from '@/core/kernel/wanted';

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
  id: neededText('give-id'),
  currency: yup.string().oneOf(CURRENCIES, wanted('choose-currency')).defined(),
  date: dateText('give-day-of-rate'),
  perHome: yup
    .string()
    .defined()
    .test('rate', wanted('give-exchange-rate'), (v) => isDecimal(v) && ratioOf(v).n > 0n),
  source: optionalText(80),
});

/** `<currency>|<day>`, the key of a rate. */
export function exchangeRateId(currency: string, date: string): string {
  return `${currency}|${date}`;
}

/** The newest rate of a currency on a day, with the day it is of. */
export type RateOn = Pick<ExchangeRate, 'perHome' | 'date' | 'source'>;

const RATE_DECIMALS = 15;

function asRate({ n, d }: Ratio): Decimal {
  return trimmed(writeUnits(halfUp({ n: n * tenTo(RATE_DECIMALS), d }), RATE_DECIMALS));
}

/** Home units for one unit of a currency of which `perHome` units are one home unit; 15 decimals. */
export function homeRate(perHome: Decimal): Decimal {
  return asRate(divide(ONE, ratioOf(perHome)));
}

/** Units of another currency for one unit of the document's, over the home currency; 15 decimals. */
export function crossRate(documentPerHome: Decimal, otherPerHome: Decimal): Decimal {
  return asRate(divide(ratioOf(otherPerHome), ratioOf(documentPerHome)));
}

/** A price in home units as units of a currency, to the decimals of a price. */
export function priceAbroad(price: Decimal, perHome: Decimal, decimals: number): Decimal {
  const { n, d } = multiply(ratioOf(price), ratioOf(perHome));
  return writeUnits(halfUp({ n: n * tenTo(decimals), d }), decimals);
}
