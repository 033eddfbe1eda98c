import { homeRate, type RateOn } from '@/core/currency/exchangeRate';
import { type Currency, exponentOf } from '@/core/kernel/currency';
import { ratioOf, readTypedDecimal, tenTo } from '@/core/kernel/decimal';
import { type Minor, minor } from '@/core/kernel/money';
import { multiply } from '@/core/kernel/ratio';
import { accept, type Result, refuse } from '@/core/kernel/result';
import { halfUp } from '@/core/kernel/rounding';

/**
 * What money of a currency is worth in home currency: R(amount × rate), by a typed rate (units for one home unit) or that of
 * the day. Refused at `perHome` where neither is known.
 */
export function worthOn(
  currency: Currency,
  home: Currency,
  typed: string,
  rate: RateOn | null,
): Result<(amount: Minor) => Minor> {
  if (currency === home) return accept((amount) => amount);
  const perHome = typed.trim() === '' ? rate?.perHome : readTypedDecimal(typed);
  if (perHome === undefined)
    return refuse({
      code: 'missing',
      path: 'perHome',
      wanted: { what: 'exchange-rate', currency, need: 'receipt', typed: true },
    });
  if (perHome === null || ratioOf(perHome).n <= 0n)
    return refuse({ code: 'invalid', path: 'perHome', wanted: 'give-exchange-rate', found: typed });
  const one = ratioOf(homeRate(perHome));
  return accept((amount) => {
    const { n, d } = multiply({ n: amount, d: tenTo(exponentOf(currency)) }, one);
    return minor(halfUp({ n: n * tenTo(exponentOf(home)), d }));
  });
}
