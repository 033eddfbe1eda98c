import * as yup from 'yup';
import { CURRENCIES, type Currency } from '@/core/kernel/currency';
import type { IsoDate } from '@/core/kernel/date';
import { type Decimal, isDecimal, ratioOf } from '@/core/kernel/decimal';
import { dateText, neededText } from '@/core/kernel/validate';
import { wanted } from '@/core/kernel/wanted';
import { shortCode } from './jurisdiction';

/** A percentage withheld from a day until the next one begins. */
export interface WithholdingRate {
  readonly from: IsoDate;
  readonly percent: Decimal;
}

/** A tax that customers keep back from what they pay and hand to their authority. */
export interface WithholdingType {
  readonly id: string;
  readonly name: string;
  /** What the percentage is taken of. */
  readonly base: 'net' | 'gross' | 'tax';
  readonly rates: readonly WithholdingRate[];
  /** Currency of the thresholds; amounts in others are converted by the rate of the tax point. */
  readonly currency: Currency;
  /** Nothing is withheld below this base of one document, in currency units; `0` for none. */
  readonly thresholdDocument: Decimal;
  /** Nothing is withheld until the customer's bases of the calendar year reach this; `0` for none. */
  readonly thresholdYear: Decimal;
  /** Whether the document is already owed less, or the customer keeps it back when paying. */
  readonly when: 'on-issue' | 'on-payment';
  /** A certificate of the customer is needed to claim it. */
  readonly certificate: boolean;
  readonly source: string;
}

const amount = () =>
  yup
    .string()
    .defined()
    .test('amount', wanted('give-threshold'), (v) => isDecimal(v) && ratioOf(v).n >= 0n);

export const withholdingTypeSchema = yup
  .object({
    id: shortCode('KE-WHVAT'),
    name: neededText('give-a-name', 60),
    base: yup.string().oneOf(['net', 'gross', 'tax'], wanted('choose-base')).defined(),
    rates: yup
      .array()
      .of(
        yup.object({
          from: dateText('give-day-rate-begins'),
          percent: yup
            .string()
            .defined()
            .test('percent', wanted('percentage-to-100'), (v) => isDecimal(v) && Number(v) >= 0 && Number(v) <= 100),
        }),
      )
      .min(1, wanted('give-a-rate'))
      .defined(),
    currency: yup.string().oneOf(CURRENCIES, wanted('choose-currency-of-thresholds')).defined(),
    thresholdDocument: amount(),
    thresholdYear: amount(),
    when: yup.string().oneOf(['on-issue', 'on-payment'], wanted('choose-when-withheld')).defined(),
    certificate: yup.boolean().defined(),
    source: yup.string().defined(),
  })
  .test('days', wanted('one-rate-a-day'), function days(type) {
    const all = type.rates.map((rate) => rate.from);
    const at = all.findIndex((from, i) => all.indexOf(from) !== i);
    return at < 0 || this.createError({ path: `rates[${at}].from` });
  });

/** The percentage in force on a day; null before the first. */
export function withholdingRateOn(type: Pick<WithholdingType, 'rates'>, day: IsoDate): WithholdingRate | null {
  let found: WithholdingRate | null = null;
  for (const rate of type.rates) if (rate.from <= day && (found === null || rate.from > found.from)) found = rate;
  return found;
}
