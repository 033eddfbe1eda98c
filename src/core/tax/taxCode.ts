import * as yup from 'yup';
import type { IsoDate } from '@/core/kernel/date';
import { type Decimal, isDecimal, ratioOf } from '@/core/kernel/decimal';
import { dateText, neededText, optionalText } from '@/core/kernel/validate';
import { CATEGORIES, type Category } from './calcTypes';

/** A percentage that holds from a day until the next one begins. */
export interface DatedRate {
  readonly from: IsoDate;
  /** Percent: `23` is 23 %. */
  readonly percent: Decimal;
}

/** What a line carries: a category, a rate by date, and what to print when no tax is charged. */
export interface TaxCode {
  /** Short and stable: `S23`. */
  readonly id: string;
  readonly name: string;
  readonly category: Category;
  /** Items of this class take the code by themselves; empty when only chosen by hand or customer. */
  readonly taxClass: string;
  /** Words the document must carry, such as the reverse charge sentence; or empty. */
  readonly legend: string;
  /** VATEX code, or empty. */
  readonly exemptionCode: string;
  /** By `from`, earliest first. */
  readonly rates: readonly DatedRate[];
}

/** Categories that charge nothing by their nature (EN 16931 BR-Z-05, BR-E-05, BR-AE-05 and kin). */
const CATEGORIES_AT_ZERO: ReadonlySet<Category> = new Set(['Z', 'E', 'AE', 'K', 'G', 'O']);

/** Categories that must say why no tax is charged (EN 16931 BR-E-10, BR-AE-10, BR-IC-10, BR-G-10, BR-O-10). */
const CATEGORIES_WITH_REASON: ReadonlySet<Category> = new Set(['E', 'AE', 'K', 'G', 'O']);

export function chargesNothing(category: Category): boolean {
  return CATEGORIES_AT_ZERO.has(category);
}

export function needsReason(category: Category): boolean {
  return CATEGORIES_WITH_REASON.has(category);
}

const rateSchema = yup.object({
  from: dateText('Give the day this rate begins, such as 2026-01-01.'),
  percent: yup
    .string()
    .defined()
    .test('percent', 'Give a percentage such as 23 or 13.5.', (v) => isDecimal(v) && ratioOf(v).n >= 0n),
});

export const taxCodeSchema = yup
  .object({
    id: neededText('a short code, such as S23', 12).matches(/^[A-Z0-9-]*$/, {
      message: 'Use capitals, digits and dashes only.',
    }),
    name: neededText('a name, such as Standard 23', 40),
    category: yup.string().oneOf(CATEGORIES, 'Choose a category.').defined(),
    taxClass: optionalText(30),
    legend: optionalText(300),
    exemptionCode: optionalText(30).matches(/^(VATEX-[A-Z]{2}-[A-Z0-9-]+)?$/, {
      message: 'Give a code of the VATEX list, such as VATEX-EU-AE.',
    }),
    rates: yup.array().of(rateSchema).min(1, 'Give at least one rate and the day it begins.').defined(),
  })
  .test('zero', 'This category charges no tax: its rate must be 0.', function zero(code) {
    if (!chargesNothing(code.category)) return true;
    const at = code.rates.findIndex((rate) => isDecimal(rate.percent) && ratioOf(rate.percent).n !== 0n);
    return at < 0 || this.createError({ path: `rates[${at}].percent` });
  })
  .test('reason', 'This category must say why no tax is charged: give the words to print.', function reason(code) {
    return !needsReason(code.category) || code.legend.trim() !== '' || this.createError({ path: 'legend' });
  })
  .test('order', 'Two rates begin on the same day.', function order(code) {
    const days = code.rates.map((rate) => rate.from);
    const at = days.findIndex((day, i) => days.indexOf(day) !== i);
    return at < 0 || this.createError({ path: `rates[${at}].from` });
  });

/**
 * The rate in force on a day: the latest that began on or before it. Null when the code had none yet.
 * Always asked with the tax point, never with today.
 */
export function rateOn(code: TaxCode, day: IsoDate): DatedRate | null {
  let found: DatedRate | null = null;
  for (const rate of code.rates) if (rate.from <= day && (found === null || rate.from > found.from)) found = rate;
  return found;
}
