import type { Decision } from '@/core/book/changes';
import type { ExchangeRate } from '@/core/currency/exchangeRate';
import { accept } from '@/core/kernel/result';

/** What taking in rates did. */
export interface RatesTaken {
  readonly added: number;
  readonly changed: number;
}

/** Takes in rates of many days; those of a day that is there already are replaced. */
export function takeRates(
  rates: readonly ExchangeRate[],
  known: readonly (ExchangeRate | undefined)[],
): Decision<RatesTaken> {
  const changed = rates.filter((rate, i) => known[i] !== undefined && known[i]?.perHome !== rate.perHome);
  const added = rates.filter((_, i) => known[i] === undefined);
  const value = { added: added.length, changed: changed.length };
  return accept({
    value,
    changes: {
      put: { exchangeRates: [...added, ...changed] },
      audit: { subject: 'Exchange rates', after: { ...value, source: rates[0]?.source ?? '' } },
    },
  });
}
