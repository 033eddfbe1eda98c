import type { IsoDate } from '@/core/kernel/date';
import { ratioOf } from '@/core/kernel/decimal';
import { inMinorUnits, plus } from '@/core/kernel/money';
import { compare } from '@/core/kernel/ratio';
import type { Customer } from '@/core/parties/customer';
import type { CalcResult } from '@/core/tax/calcTypes';
import { withholdingRateOn } from '@/core/tax/withholding';
import type { FrozenWithholding } from './content';
import type { Setting } from './setting';

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
): readonly FrozenWithholding[] {
  const { currency, totals } = figures;
  const bases = { net: totals.net, tax: totals.taxAmount, gross: totals.gross };
  return setting.setup.withholdingTypes.flatMap((type): readonly FrozenWithholding[] => {
    if (customer?.withholding.includes(type.id) !== true) return [];
    const rate = withholdingRateOn(type, taxPoint);
    if (rate === null) return [];
    const year = plus(setting.yearSoFar[type.base], bases[type.base]);
    const reached = compare({ n: year, d: 1n }, inMinorUnits(ratioOf(type.thresholdYear), currency)) >= 0;
    if (!reached) return [];
    const { id, name, base, when, certificate, thresholdDocument } = type;
    return [
      { id, name, base, when, certificate, percent: rate.percent, since: rate.from, threshold: thresholdDocument },
    ];
  });
}

/** What is kept back already when the document is issued, in minor units. */
export function withheldOnIssue(withholding: readonly FrozenWithholding[], figures: CalcResult): bigint {
  const onIssue = new Set(withholding.filter((w) => w.when === 'on-issue').map((w) => w.id));
  return figures.withholding.reduce((sum, part) => (onIssue.has(part.id) ? sum + part.amount : sum), 0n);
}
