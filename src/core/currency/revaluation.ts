import type { Currency } from '@/core/kernel/currency';
import type { IsoDate } from '@/core/kernel/date';
import type { Decimal } from '@/core/kernel/decimal';
import { grouped } from '@/core/kernel/grouped';
import { type Minor, minus, total } from '@/core/kernel/money';

/** An open debt or credit in another currency. */
export interface ForeignItem {
  readonly id: string;
  readonly kind: 'document' | 'receipt';
  readonly number: string;
  readonly customerName: string;
  readonly currency: Currency;
  /** Signed, in its own currency: above zero the customer owes us. */
  readonly open: Minor;
  /** The same as it stands on receivables, in home currency; revaluation never touches it. */
  readonly openHome: Minor;
}

/** What it is worth by the rate of a day. */
export interface RevaluedItem extends ForeignItem {
  readonly worth: Minor;
  /** `worth − openHome`: above zero a gain that is not realised. */
  readonly difference: Minor;
}

/** What the open items of one currency come to. */
export interface RevaluedCurrency {
  readonly currency: Currency;
  /** Units for one home unit, and the day the rate is of. */
  readonly perHome: Decimal;
  readonly rateDate: IsoDate;
  readonly difference: Minor;
  /** What is posted: the difference less what earlier revaluations of the same day posted. */
  readonly change: Minor;
}

/** Open foreign items at a month's end, by the rate of that day; posted that day, and taken back on the next. */
export interface Revaluation {
  readonly id: string;
  /** Last day of a month. */
  readonly date: IsoDate;
  readonly at: string;
  readonly operator: string;
  readonly currencies: readonly RevaluedCurrency[];
  readonly items: readonly RevaluedItem[];
  /** The entry and its mirror; both empty where nothing was left to post. */
  readonly entryId: string;
  readonly mirrorId: string;
}

/** What earlier revaluations of a day posted in a currency. */
export function postedBefore(earlier: readonly Revaluation[], currency: Currency): Minor {
  return total(
    earlier.flatMap(({ currencies }) => currencies.flatMap((one) => (one.currency === currency ? [one.change] : []))),
  );
}

/** Items with what they are worth; `worthOf` converts by the rate of the day. */
export function revalued(
  items: readonly ForeignItem[],
  worthOf: (currency: Currency, amount: Minor) => Minor,
): readonly RevaluedItem[] {
  return items.map((item) => {
    const worth = worthOf(item.currency, item.open);
    return { ...item, worth, difference: minus(worth, item.openHome) };
  });
}

/** Sum of the differences by currency. */
export function differencesOf(items: readonly RevaluedItem[]): ReadonlyMap<Currency, Minor> {
  return new Map(
    [...grouped(items, ({ currency }) => currency)].map(([currency, own]) => [
      currency as Currency,
      total(own.map(({ difference }) => difference)),
    ]),
  );
}
