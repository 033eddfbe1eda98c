import type { Currency } from '@/core/kernel/currency';
import { showMoney } from '@/core/kernel/show';
import type { CalcResult } from '@/core/tax/calcTypes';
import { Money } from '@/ui/Money';

interface TotalsProps {
  readonly figures: CalcResult;
  readonly currency: Currency;
  readonly nameOf: (code: string) => string;
}

/** Net, tax by code with its base, and the total under its double rule. */
export function Totals({ figures, currency, nameOf }: TotalsProps) {
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
      <div className="sum-rule mt-1 flex items-baseline justify-between px-1.5 py-1">
        <dt className="font-semibold text-lg">Total</dt>
        <dd className="font-semibold text-lg">
          <Money amount={figures.totals.payable} currency={currency} withCode />
        </dd>
      </div>
    </dl>
  );
}
