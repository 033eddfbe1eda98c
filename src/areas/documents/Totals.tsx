import type { ReactNode } from 'react';
import type { FrozenTax, FrozenWithholding, HomeRate } from '@/core/documents/content';
import { namedTaxWords, taxRows } from '@/core/documents/taxRows';
import type { Currency } from '@/core/kernel/currency';
import { writeDate } from '@/core/kernel/date';
import { type Minor, NOTHING, negated, total } from '@/core/kernel/money';
import { showMoney, showNumber } from '@/core/kernel/show';
import type { CalcResult } from '@/core/tax/calcTypes';
import type { TotalKey } from '@/core/tax/explainTotal';
import { Money } from '@/ui/Money';

interface TotalsProps {
  readonly figures: CalcResult;
  readonly currency: Currency;
  readonly taxes: readonly FrozenTax[];
  /** Words for allowances and charges, by id. */
  readonly adjustmentName: (id: string) => string;
  /** Names of what customers withhold, by type. */
  readonly withholding: readonly Pick<FrozenWithholding, 'id' | 'name'>[];
  readonly home?: HomeRate | undefined;
  /** The figure whose workings stand in the margin. */
  readonly focus: TotalKey;
  readonly onFocus: (key: TotalKey) => void;
}

interface RowProps {
  readonly at: TotalKey;
  /** What it is among rows that open the same workings; `at` unless it is given. */
  readonly id?: string;
  readonly words: ReactNode;
  readonly amount: Minor;
  readonly look?: string;
  readonly withCode?: boolean;
}

/** Allowances and charges, net, tax by code with its base, and the total under its double rule; each opens its workings. */
export function Totals(props: TotalsProps) {
  const { figures, currency, taxes, adjustmentName, withholding, home, focus, onFocus } = props;
  const { totals } = figures;
  const withheld = figures.withholding.filter(({ amount }) => amount !== NOTHING);
  const withheldName = (id: string) => withholding.find((type) => type.id === id)?.name ?? id;
  const row = ({ at, id = at, words, amount, look = '', withCode = false }: RowProps) => (
    <div key={id} className={`flex items-baseline justify-between px-1.5 py-0.5 ${look}`}>
      <dt>{words}</dt>
      <dd>
        <button
          type="button"
          title="Show workings"
          aria-pressed={focus === at}
          onClick={() => onFocus(at)}
          className={`cursor-pointer hover:underline ${focus === at ? 'shadow-[inset_0_-2px_0_var(--rust)]' : ''}`}
        >
          <Money amount={amount} currency={currency} withCode={withCode} />
        </button>
      </dd>
    </div>
  );
  const adjusted = [...new Set(figures.adjustments.map((part) => part.id))];
  const adjustedBy = (id: string) => total(figures.adjustments.flatMap((part) => (part.id === id ? part.value : [])));
  return (
    <dl className="mt-4 ml-auto w-[330px]">
      {adjusted.map((id) => row({ at: `adjustment:${id}`, words: adjustmentName(id), amount: adjustedBy(id) }))}
      {row({ at: 'net', words: 'Net', amount: totals.net })}
      {taxRows(taxes, figures.groups).map(({ code, family, base, amount, ...named }) =>
        row({
          id: `${code}:${family}`,
          at: `group:${code}`,
          words: `${namedTaxWords(named)} on ${showMoney(base, currency)}`,
          amount,
        }),
      )}
      {totals.rounding !== 0n && row({ at: 'rounding', words: 'Cash rounding', amount: totals.rounding })}
      {row({
        at: 'payable',
        words: 'Total',
        amount: totals.payable,
        look: 'sum-rule mt-1 py-1 font-semibold text-lg',
        withCode: true,
      })}
      {withheld.map((part) =>
        row({
          at: `withheld:${part.id}`,
          words: `${withheldName(part.id)} on ${showMoney(part.base, currency)}`,
          amount: negated(part.amount),
        }),
      )}
      {withheld.length > 0 &&
        row({ at: 'expected', words: 'Net of withholding', amount: totals.expectedCash, look: 'border-rule border-t' })}
      {home !== undefined && figures.home !== undefined && (
        <div className="flex items-baseline justify-between px-1.5 pt-1 text-soft text-sm">
          <dt>
            Tax in {home.currency}, 1 {home.currency} = {showNumber(home.perHome)} {currency}, {writeDate(home.on)}
          </dt>
          <dd className="shrink-0 pl-2">
            <button
              type="button"
              title="Show workings"
              aria-pressed={focus === 'home'}
              onClick={() => onFocus('home')}
              className="cursor-pointer hover:underline"
            >
              <Money amount={figures.home.taxAmount} currency={home.currency} withCode />
            </button>
          </dd>
        </div>
      )}
    </dl>
  );
}
