import type { Currency } from '@/core/kernel/currency';
import type { Minor } from '@/core/kernel/money';
import { showMoney } from '@/core/kernel/show';

interface MoneyProps {
  readonly amount: Minor;
  readonly currency: Currency;
  /** Shows the currency code in soft ink before the figure. */
  readonly withCode?: boolean;
  readonly className?: string;
}

/** An amount: tabular, thousands marked, a true minus. */
export function Money({ amount, currency, withCode = false, className = '' }: MoneyProps) {
  return (
    <span className={`whitespace-nowrap tabular-nums ${className}`}>
      {withCode && <span className="mr-2 text-soft text-xs">{currency}</span>}
      {showMoney(amount, currency)}
    </span>
  );
}
