import type { FrozenWithholding } from '@/core/documents/content';
import type { Currency } from '@/core/kernel/currency';
import { negated } from '@/core/kernel/money';
import { showMoney } from '@/core/kernel/show';
import type { CalcResult } from '@/core/tax/calcTypes';
import { Money } from '@/ui/Money';

interface TotalsProps {
  readonly figures: CalcResult;
  readonly currency: Currency;
  readonly nameOf: (code: string) => string;
  /** Names of what customers withhold, by type. */
  readonly withholding: readonly Pick<FrozenWithholding, 'id' | 'name'>[];
}

/** Net, tax by code with its base, and the total under its double rule. */
export function Totals({ figures, currency, nameOf, withholding }: TotalsProps) {
  const withheldName = (id: string) => withholding.find((type) => type.id === id)?.name ?? id;
  return (
    <dl className="mt-4 ml-auto w-[310px]">
      <div className="flex justify-between px-1.5 py-0.5">
        <dt>Net</dt>
        <dd>
          <Money amount={figures.totals.net} currency={currency} />
        </dd>
      </div>
      {figures.groups.map((group) => (
        <div key={group.tax} className="flex justify-between px-1.5 py-0.5">
          <dt>
            {nameOf(group.tax)} on {showMoney(group.net, currency)}
          </dt>
          <dd>
            <Money amount={group.taxAmount} currency={currency} />
          </dd>
        </div>
      ))}
      {figures.totals.rounding !== 0n && (
        <div className="flex justify-between px-1.5 py-0.5">
          <dt>Rounded to the smallest coin</dt>
          <dd>
            <Money amount={figures.totals.rounding} currency={currency} />
          </dd>
        </div>
      )}
      <div className="sum-rule mt-1 flex items-baseline justify-between px-1.5 py-1">
        <dt className="font-semibold text-lg">Total</dt>
        <dd className="font-semibold text-lg">
          <Money amount={figures.totals.payable} currency={currency} withCode />
        </dd>
      </div>
      {figures.withholding.map((part) => (
        <div key={part.id} className="flex justify-between px-1.5 py-0.5">
          <dt>
            {withheldName(part.id)} on {showMoney(part.base, currency)}
          </dt>
          <dd>
            <Money amount={negated(part.amount)} currency={currency} />
          </dd>
        </div>
      ))}
      {figures.withholding.length > 0 && (
        <div className="flex justify-between border-rule border-t px-1.5 py-0.5">
          <dt>Money expected</dt>
          <dd>
            <Money amount={figures.totals.expectedCash} currency={currency} />
          </dd>
        </div>
      )}
    </dl>
  );
}
