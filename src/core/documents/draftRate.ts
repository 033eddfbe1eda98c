import { crossRate, homeRate } from '@/core/currency/exchangeRate';
import type { Currency } from '@/core/kernel/currency';
import { decimal, ratioOf, readTypedDecimal } from '@/core/kernel/decimal';
import type { Refusal } from '@/core/kernel/result';
import type { RateNeed } from '@/core/kernel/wanted';
import type { Registration } from '@/core/tax/registration';
import type { Content, HomeRate } from './content';
import type { Draft } from './draft';
import { datesOf } from './lineTax';
import { currencyOf } from './readLine';
import type { Setting } from './setting';

const ONE_TO_ONE = decimal('1');

/** What was looked for, nothing where none is needed, or why it is not there. */
export type Found<T> = T | Refusal | undefined;

/** True when what was looked for can't be had. */
export const isRefusal = (found: unknown): found is Refusal =>
  found !== null && typeof found === 'object' && 'path' in found && 'code' in found;

const noRate = (currency: Currency, path: 'perHome' | 'taxPoint', need: RateNeed): Refusal => ({
  code: 'missing',
  path,
  wanted: { what: 'exchange-rate', currency, need, typed: path === 'perHome' },
});

/** The exchange rate of a draft: as typed, else that of the tax point; undefined in home currency. */
export function homeRateOf(draft: Draft, setting: Setting): Found<HomeRate> {
  const home = setting.business.homeCurrency;
  const currency = currencyOf(draft, home);
  if (currency === home) return undefined;
  const typed = draft.perHome.trim();
  if (typed === '') {
    const found = setting.rateOf(currency);
    if (found === null) return noRate(currency, 'perHome', 'document');
    const { perHome, date, source } = found;
    return { currency: home, rate: homeRate(perHome), perHome, on: date, source };
  }
  const perHome = readTypedDecimal(typed);
  const day = datesOf(draft).taxPoint;
  if (perHome === null || ratioOf(perHome).n <= 0n || day === null)
    return { code: 'invalid', path: 'perHome', wanted: 'give-exchange-rate', found: typed };
  return { currency: home, rate: homeRate(perHome), perHome, on: day, source: '' };
}

/** How the document counts in a return that is not in home currency. */
export function filingRate(
  registration: Registration,
  currency: Currency,
  home: HomeRate | undefined,
  setting: Setting,
): Found<NonNullable<Content['filing']>> {
  const { filingCurrency } = registration;
  const homeCurrency = setting.business.homeCurrency;
  if (filingCurrency === homeCurrency) return undefined;
  if (filingCurrency === currency) return { currency, rate: ONE_TO_ONE };
  const rate = setting.rateOf(filingCurrency);
  if (rate === null) return noRate(filingCurrency, 'taxPoint', { filing: registration.name });
  return {
    currency: filingCurrency,
    rate: home === undefined ? rate.perHome : crossRate(home.perHome, rate.perHome),
  };
}
