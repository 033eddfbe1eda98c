import type { RevaluedCurrency } from '@/core/currency/revaluation';
import { negated } from '@/core/kernel/money';
import { type Account, accountFor } from '../account';
import type { Side } from '../entry';

/** Differences of open foreign items by currency: receivables against exchange differences that are not realised. */
export function revaluationSides(
  currencies: readonly Pick<RevaluedCurrency, 'currency' | 'change'>[],
  chart: readonly Account[],
): readonly Side[] {
  const [receivables, unrealised] = [accountFor(chart, 'receivables'), accountFor(chart, 'exchange-unrealised')];
  return currencies.flatMap(({ currency, change }): readonly Side[] => {
    const text = `Revaluation ${currency}`;
    return [
      { account: receivables, amount: change, text },
      { account: unrealised, amount: negated(change), text },
    ];
  });
}
