import type { Currency } from '@/core/kernel/currency';
import type { IsoDate } from '@/core/kernel/date';
import { type Decimal, ratioOf } from '@/core/kernel/decimal';
import { inMinorUnits, minor, plus, writeMoney } from '@/core/kernel/money';
import { compare, multiply } from '@/core/kernel/ratio';
import { halfUp } from '@/core/kernel/rounding';
import type { Customer } from '@/core/parties/customer';
import type { CalcResult } from '@/core/tax/calcTypes';
import { withholdingRateOn } from '@/core/tax/withholding';
import type { FrozenWithholding, HomeRate } from './content';
import type { Setting } from './setting';

/** An amount of home units as units of the document's currency. */
function inCurrency(amount: Decimal, { perHome }: HomeRate, currency: Currency): Decimal {
  return writeMoney(minor(halfUp(inMinorUnits(multiply(ratioOf(amount), ratioOf(perHome)), currency))), currency);
}

/**
 * What the customer keeps back from a document with these figures: its withholding types with the
 * rates of the tax point. A type with a threshold for the year only counts once the customer's
 * documents of the year, this one included, reach it.
 */
export function withholdingOn(
  customer: Customer | null,
  setting: Setting,
  taxPoint: IsoDate,
  figures: CalcResult,
  home: HomeRate | undefined,
): readonly FrozenWithholding[] {
  if (customer === null || customer.withholding.length === 0) return [];
  // Thresholds are in home currency, whatever the document is in.
  const { net, taxAmount, gross } = figures.home ?? figures.totals;
  const currency = home?.currency ?? figures.currency;
  const bases = { net, tax: taxAmount, gross };
  return setting.setup.withholdingTypes.flatMap((type): readonly FrozenWithholding[] => {
    if (!customer.withholding.includes(type.id)) return [];
    const rate = withholdingRateOn(type, taxPoint);
    if (rate === null) return [];
    const year = plus(setting.yearSoFar[type.base], bases[type.base]);
    const reached = compare({ n: year, d: 1n }, inMinorUnits(ratioOf(type.thresholdYear), currency)) >= 0;
    if (!reached) return [];
    const { id, name, base, when, certificate, thresholdDocument } = type;
    const threshold = home === undefined ? thresholdDocument : inCurrency(thresholdDocument, home, figures.currency);
    return [{ id, name, base, when, certificate, percent: rate.percent, since: rate.from, threshold }];
  });
}

/** What is kept back already when the document is issued, in minor units. */
export function withheldOnIssue(withholding: readonly FrozenWithholding[], figures: CalcResult): bigint {
  const onIssue = new Set(withholding.filter((w) => w.when === 'on-issue').map((w) => w.id));
  return figures.withholding.reduce((sum, part) => (onIssue.has(part.id) ? sum + part.amount : sum), 0n);
}
