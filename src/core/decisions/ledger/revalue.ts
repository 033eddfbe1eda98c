import type { Changes, Decision, Moment } from '@/core/book/changes';
import type { RateOn } from '@/core/currency/exchangeRate';
import {
  differencesOf,
  type ForeignItem,
  postedBefore,
  type Revaluation,
  type RevaluedCurrency,
  revalued,
} from '@/core/currency/revaluation';
import type { Currency } from '@/core/kernel/currency';
import { addDays, endOfMonth, isIsoDate } from '@/core/kernel/date';
import { type Minor, minus, NOTHING, negated } from '@/core/kernel/money';
import { accept, type Refusal, refuse } from '@/core/kernel/result';
import type { Account } from '@/core/ledger/account';
import { entryOf, type Side } from '@/core/ledger/entry';
import { revaluationSides } from '@/core/ledger/posting/revaluation';
import { worthOn } from '../payments/worth';

export interface RevalueMaterial {
  /** Open debts and credits in other currencies, as they stand. */
  readonly items: readonly ForeignItem[];
  /** The newest rate of each currency on or before the day. */
  readonly rates: ReadonlyMap<string, RateOn>;
  /** Revaluations of the same day before. */
  readonly earlier: readonly Revaluation[];
  readonly chart: readonly Account[];
  readonly homeCurrency: Currency;
}

const mirrored = (sides: readonly Side[]): readonly Side[] =>
  sides.map((side) => ({ ...side, amount: negated(side.amount) }));

/**
 * Revalues what is open in other currencies at the end of a month by the rates of that day: the differences are posted that
 * day and taken back on the next. Done again it posts the change. Refused for any other day, and where a rate is missing.
 */
export function revalue(material: RevalueMaterial, date: string, moment: Moment): Decision<Revaluation> {
  const { items, rates, earlier, chart, homeCurrency } = material;
  if (!isIsoDate(date) || date !== endOfMonth(date))
    return refuse({ code: 'invalid', path: 'date', wanted: 'last-day-of-month', found: date });
  const refusals: Refusal[] = [];
  const worth = new Map<Currency, (amount: Minor) => Minor>();
  const known: Pick<RevaluedCurrency, 'currency' | 'perHome' | 'rateDate'>[] = [];
  const booked = earlier.flatMap(({ currencies }) => currencies.map(({ currency }) => currency));
  for (const currency of new Set([...items.map((item) => item.currency), ...booked])) {
    const rate = rates.get(currency) ?? null;
    const read = worthOn(currency, homeCurrency, '', rate);
    if (read.ok && rate !== null) {
      worth.set(currency, read.value);
      known.push({ currency, perHome: rate.perHome, rateDate: rate.date });
    } else if (!read.ok) refusals.push(...read.refusals);
  }
  if (refusals.length > 0) return refuse(...refusals);
  const own = revalued(items, (currency, amount) => worth.get(currency)?.(amount) ?? amount);
  const differences = differencesOf(own);
  const currencies = known.map((one): RevaluedCurrency => {
    const difference = differences.get(one.currency) ?? NOTHING;
    return { ...one, difference, change: minus(difference, postedBefore(earlier, one.currency)) };
  });
  const sides = revaluationSides(currencies, chart);
  const moves = currencies.some(({ change }) => change !== NOTHING);
  const [entryId, mirrorId] = moves ? [moment.newId(), moment.newId()] : ['', ''];
  const made: Revaluation = {
    id: moment.newId(),
    date,
    at: moment.now,
    operator: moment.operator,
    currencies,
    items: own,
    entryId,
    mirrorId,
  };
  const entry = (id: string, on: typeof date, text: string, of: readonly Side[]) =>
    entryOf({ id, date: on, kind: 'revaluation', text, sourceId: made.id, at: moment.now }, of);
  const posted = moves
    ? [
        entry(entryId, date, 'Revaluation of open items', sides),
        entry(mirrorId, addDays(date, 1), 'Revaluation of open items, taken back', mirrored(sides)),
      ]
    : [];
  const add: Changes['add'] = {
    revaluations: [made],
    ...(moves && { journal: posted.map((one) => one.entry), journalLines: posted.flatMap((one) => one.lines) }),
  };
  return accept({
    value: made,
    changes: {
      add,
      audit: {
        subject: `Revaluation ${date}`,
        about: [made.id],
        after: Object.fromEntries(currencies.map(({ currency, change }) => [currency, change])),
      },
    },
  });
}
