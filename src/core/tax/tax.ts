import * as yup from 'yup';
import { type IsoDate, isIsoDate } from '@/core/kernel/date';
import { type Decimal, isDecimal, ratioOf } from '@/core/kernel/decimal';
import { dateText, neededText, optionalText } from '@/core/kernel/validate';
import { wanted } from '@/core/kernel/wanted';
import { shortCode } from './jurisdiction';

/** What one tax takes for one class of supplies from a day on. */
export interface TaxRate {
  /** Empty: every class that has no rate of its own. */
  readonly taxClass: string;
  readonly from: IsoDate;
  /** Last day it holds; empty until it is ended or the next one begins. */
  readonly until: IsoDate | '';
  /** Percent: `23` is 23 %. Empty when the rate is an amount per unit. */
  readonly percent: Decimal | '';
  /** Currency units for each unit of quantity; empty for a percentage. */
  readonly perUnit: Decimal | '';
  /** Where it is written, in a few words: `VAT Consolidation Act 2010, s. 46`. */
  readonly source: string;
}

/** A levy of one jurisdiction. */
export interface Tax {
  readonly id: string;
  readonly jurisdictionId: string;
  readonly name: string;
  readonly rates: readonly TaxRate[];
  /** In stacks it is charged only by who is registered in its own jurisdiction, as provincial sales taxes of Canada are. */
  readonly ownRegistration?: boolean;
}

const figure = (v: unknown): boolean => v === '' || (isDecimal(v) && ratioOf(v).n >= 0n);

const rateSchema = yup
  .object({
    taxClass: optionalText(30),
    from: dateText('give-day-rate-begins'),
    until: yup
      .string()
      .defined()
      .test('until', wanted('last-day-or-nothing'), (v) => v === '' || isIsoDate(v)),
    percent: yup.string().defined().test('percent', wanted('give-percentage'), figure),
    perUnit: yup.string().defined().test('perUnit', wanted('give-amount-per-unit'), figure),
    source: optionalText(200),
  })
  .test('one', wanted('percentage-or-amount'), function one(rate) {
    return (rate.percent === '') !== (rate.perUnit === '') || this.createError({ path: `${this.path}.percent` });
  })
  .test('order', wanted('end-not-before-begin'), function order(rate) {
    return rate.until === '' || rate.until >= rate.from || this.createError({ path: `${this.path}.until` });
  });

export const taxSchema = yup
  .object({
    id: shortCode('IE-VAT'),
    jurisdictionId: neededText('give-the-jurisdiction'),
    name: neededText('give-name-of-tax', 40),
    rates: yup.array().of(rateSchema).defined(),
    ownRegistration: yup.boolean(),
  })
  .test('days', wanted('one-rate-of-a-class-a-day'), function days(tax) {
    const keys = tax.rates.map((rate) => `${rate.taxClass}|${rate.from}`);
    const at = keys.findIndex((key, i) => keys.indexOf(key) !== i);
    return at < 0 || this.createError({ path: `rates[${at}].from` });
  });

function newest(rates: readonly TaxRate[], taxClass: string, day: IsoDate): TaxRate | null {
  let found: TaxRate | null = null;
  for (const rate of rates)
    if (rate.taxClass === taxClass && rate.from <= day && (found === null || rate.from > found.from)) found = rate;
  return found === null || (found.until !== '' && found.until < day) ? null : found;
}

/** Class of what is exempt: no rate of every class is ever charged on it. */
export const EXEMPT_CLASS = 'exempt';

/**
 * The rate in force for a class on a day: the latest of the class that began on or before it and has
 * not ended, else that of every class, but for what is exempt. Null when there is none. Always asked
 * with the tax point, never with today.
 */
export function rateOn(tax: Pick<Tax, 'rates'>, taxClass: string, day: IsoDate): TaxRate | null {
  return newest(tax.rates, taxClass, day) ?? (taxClass === EXEMPT_CLASS ? null : newest(tax.rates, '', day));
}

/** True where a class has a rate of its own on a day, rather than that of every class. */
export function hasOwnRate(tax: Pick<Tax, 'rates'>, taxClass: string, day: IsoDate): boolean {
  return newest(tax.rates, taxClass, day) !== null;
}

/** A rate from a later day on: changes neither what was before nor rates that begin later. */
export function withRate(tax: Tax, rate: TaxRate): Tax {
  const others = tax.rates.filter((r) => r.taxClass !== rate.taxClass || r.from !== rate.from);
  return { ...tax, rates: sortedRates([...others, rate]) };
}

/** Rates in the order they are kept: by class, earliest first. */
export function sortedRates(rates: readonly TaxRate[]): readonly TaxRate[] {
  const key = (rate: TaxRate) => `${rate.taxClass}|${rate.from}`;
  return [...rates].sort((a, b) => (key(a) < key(b) ? -1 : 1));
}
