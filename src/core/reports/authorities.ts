import type { Currency } from '@/core/kernel/currency';
import { dayOf, type IsoDate } from '@/core/kernel/date';
import { type Minor, minus, NOTHING } from '@/core/kernel/money';
import { type Span, spanName } from '@/core/returns/calendar';
import type { TaxPeriod } from '@/core/returns/return';
import { leftOf, type OwedReturn } from '@/core/returns/taxPayment';
import type { Report } from './report';
import { tableOf } from './tableOf';

/** A return with its period, as an authority is owed it. */
export interface OwedOf extends OwedReturn {
  readonly registration: string;
  readonly period: TaxPeriod;
}

export interface AuthoritiesMaterial {
  readonly on: IsoDate;
  readonly home: Currency;
  /** Returns that were filed until the day, with what was paid of them until then. */
  readonly returns: readonly OwedOf[];
  /** What periods that are not filed come to so far, by registration. */
  readonly unfiled: readonly { readonly registration: string; readonly span: Span; readonly tax: Minor }[];
  /** Withheld tax that was set against returns until the day, by registration. */
  readonly setOff: ReadonlyMap<string, Minor>;
}

interface Owed {
  readonly key: string;
  readonly registration: string;
  readonly what: string;
  readonly since: string;
  readonly payable: Minor;
  readonly left: Minor;
}

/** What each authority is owed and since when, return by return; what an authority owes us stands below zero. */
export function authoritiesReport({ on, home, returns, unfiled, setOff }: AuthoritiesMaterial): Report {
  const owed = returns.flatMap((one): readonly Owed[] => {
    const left = leftOf(one);
    const { period, registration, payable, periodId } = one;
    if (left === NOTHING || period.filed === null) return [];
    return [{ key: periodId, registration, what: spanName(period), since: dayOf(period.filed.at), payable, left }];
  });
  const less = [...setOff].flatMap(([registration, amount]): readonly Owed[] =>
    amount === NOTHING
      ? []
      : [
          {
            key: registration,
            registration,
            what: 'Tax withheld, set off',
            since: '',
            payable: NOTHING,
            left: minus(NOTHING, amount),
          },
        ],
  );
  const rows = [...owed, ...less].sort((a, b) => (a.registration + a.since < b.registration + b.since ? -1 : 1));
  return {
    title: 'Owed to authorities',
    from: on,
    until: on,
    currency: home,
    tables: [
      tableOf({
        caption: 'By return',
        rows,
        keyOf: ({ key }) => key,
        columns: ({ words, days, amounts }) => [
          words('Registration', ({ registration }) => registration),
          words('Return', ({ what }) => what),
          days('Filed', ({ since }) => since),
          amounts('Payable', home, ({ payable }) => payable, { blank: true }),
          amounts('Left to pay', home, ({ left }) => left),
        ],
        nothing: 'Nothing is owed to any authority.',
      }),
      tableOf({
        caption: 'Not yet filed',
        rows: unfiled,
        keyOf: ({ registration, span }) => `${registration}|${span.start}`,
        columns: ({ words, days, amounts }) => [
          words('Registration', ({ registration }) => registration),
          words('Period', ({ span }) => spanName(span)),
          days('Ends', ({ span }) => span.end),
          amounts('Tax so far', home, ({ tax }) => tax),
        ],
        nothing: 'Every period with documents is filed.',
      }),
    ],
    notes: [],
  };
}
