import type { Currency } from '@/core/kernel/currency';
import type { IsoDate } from '@/core/kernel/date';
import { type Decimal, ratioOf } from '@/core/kernel/decimal';
import { inMinorUnits, minor, plus, writeMoney } from '@/core/kernel/money';
import { compare, divide, multiply, ONE, type Ratio } from '@/core/kernel/ratio';
import type { Refusal } from '@/core/kernel/result';
import { halfUp } from '@/core/kernel/rounding';
import type { Customer } from '@/core/parties/customer';
import type { CalcResult } from '@/core/tax/calcTypes';
import { withholdingRateOn } from '@/core/tax/withholding';
import type { FrozenWithholding, HomeRate } from './content';
import type { Setting } from './setting';

/** Units of a currency for one home unit on the tax point; null where no rate is known. */
function perHomeOf(currency: Currency, setting: Setting, home: HomeRate | undefined, own: Currency): Ratio | null {
  if (currency === setting.business.homeCurrency) return ONE;
  if (home !== undefined && currency === own) return ratioOf(home.perHome);
  const found = setting.rateOf(currency);
  return found === null ? null : ratioOf(found.perHome);
}

const isNothing = (amount: Decimal): boolean => ratioOf(amount).n === 0n;

/** Withholding types of a customer, with the rates of the tax point. */
function typesOf(customer: Customer | null, setting: Setting, taxPoint: IsoDate) {
  const own = new Set(customer?.withholding);
  return setting.setup.withholdingTypes.flatMap((type) => {
    const rate = own.has(type.id) ? withholdingRateOn(type, taxPoint) : null;
    return rate === null ? [] : [{ type, rate }];
  });
}

/** Thresholds that can't be held against a document, because no rate of their currency is known on the tax point. */
export function thresholdRefusals(
  customer: Customer | null,
  setting: Setting,
  taxPoint: IsoDate,
  currency: Currency,
  home: HomeRate | undefined,
): readonly Refusal[] {
  return typesOf(customer, setting, taxPoint).flatMap(({ type }): readonly Refusal[] => {
    const none = isNothing(type.thresholdDocument) && isNothing(type.thresholdYear);
    if (none || perHomeOf(type.currency, setting, home, currency) !== null) return [];
    return [
      {
        code: 'missing',
        path: 'taxPoint',
        wanted: { what: 'exchange-rate', currency: type.currency, need: { threshold: type.name }, typed: false },
      },
    ];
  });
}

/**
 * What the customer keeps back from a document with these figures: its withholding types with the
 * rates of the tax point. A type with a threshold for the year only counts once the customer's
 * documents of the year, this one included, reach it. Thresholds are in the type's own currency.
 */
export function withholdingOn(
  customer: Customer | null,
  setting: Setting,
  taxPoint: IsoDate,
  figures: CalcResult,
  home: HomeRate | undefined,
): readonly FrozenWithholding[] {
  if (customer === null || customer.withholding.length === 0) return [];
  const { net, taxAmount, gross } = figures.home ?? figures.totals;
  const bases = { net, tax: taxAmount, gross };
  const homeCurrency = setting.business.homeCurrency;
  const ownPerHome = perHomeOf(figures.currency, setting, home, figures.currency) ?? ONE;
  return typesOf(customer, setting, taxPoint).flatMap(({ type, rate }): readonly FrozenWithholding[] => {
    const { id, name, base, when, certificate, currency, thresholdDocument, thresholdYear } = type;
    const perHome = perHomeOf(currency, setting, home, figures.currency) ?? ONE;
    // In home currency, so that the sum of the year is not converted document by document.
    const inHome = (amount: Decimal) => inMinorUnits(divide(ratioOf(amount), perHome), homeCurrency);
    const year = plus(setting.yearSoFar[base], bases[base]);
    if (compare({ n: year, d: 1n }, inHome(thresholdYear)) < 0) return [];
    const threshold =
      currency === figures.currency
        ? thresholdDocument
        : writeMoney(
            minor(
              halfUp(inMinorUnits(multiply(divide(ratioOf(thresholdDocument), perHome), ownPerHome), figures.currency)),
            ),
            figures.currency,
          );
    return [{ id, name, base, when, certificate, percent: rate.percent, since: rate.from, threshold }];
  });
}

/** What is kept back already when the document is issued, in minor units. */
export function withheldOnIssue(withholding: readonly FrozenWithholding[], figures: CalcResult): bigint {
  const onIssue = new Set(withholding.filter((w) => w.when === 'on-issue').map((w) => w.id));
  return figures.withholding.reduce((sum, part) => (onIssue.has(part.id) ? sum + part.amount : sum), 0n);
}
