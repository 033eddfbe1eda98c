import type { IssuedDocument } from '@/core/documents/issued';
import type { Currency } from '@/core/kernel/currency';
import { addDays, daysBetween, type IsoDate, isIsoDate, laterOf, mondayAfter, writeDay } from '@/core/kernel/date';
import { grouped } from '@/core/kernel/grouped';
import { type Minor, minor, minus, NOTHING, plus, total } from '@/core/kernel/money';
import { halfUp } from '@/core/kernel/rounding';
import { share } from '@/core/kernel/share';
import { dueParts } from '@/core/settlement/account';
import { expectedWith } from '@/core/settlement/expected';
import type { Withheld } from '@/core/settlement/withholding';
import type { Report } from './report';
import { tableOf } from './tableOf';

/** An invoice that was settled as a whole: when it was due, and when that was done. */
export interface Settled {
  readonly customerId: string;
  readonly due: IsoDate;
  readonly on: IsoDate;
}

/** The median of days late by customer, rounded down; of those who always paid early it is below zero. */
export function payingHabits(settled: readonly Settled[]): ReadonlyMap<string, number> {
  return new Map(
    [...grouped(settled, ({ customerId }) => customerId)].map(([customerId, own]) => {
      const late = own.map(({ due, on }) => daysBetween(due, on)).sort((a, b) => a - b);
      const upper = Math.floor(late.length / 2);
      const [a = 0, b = 0] = [late[Math.ceil(late.length / 2) - 1], late[upper]];
      return [customerId, Math.floor((a + b) / 2)];
    }),
  );
}

/** Money that an open invoice is expected to bring in, in home currency. */
export interface ExpectedPart {
  readonly document: IssuedDocument;
  readonly due: IsoDate;
  /** Due, and as many days later as this customer usually pays. */
  readonly on: IsoDate;
  /** With what is kept back taken off. */
  readonly cash: Minor;
  /** Tax that is expected to be kept back. */
  readonly withheld: Minor;
}

/** What an open invoice is expected to bring in and when, part by part; what it stands at in the books is shared among its parts. */
export function expectedParts(
  document: IssuedDocument,
  withheld: readonly Pick<Withheld, 'typeId' | 'amount' | 'voidOn'>[],
  late: number,
): readonly ExpectedPart[] {
  const parts = dueParts(document, document.open);
  const homes = share(
    document.openHome,
    parts.map(({ amount }) => amount),
  );
  const kept = total(expectedWith(document, document.open, withheld).map(({ amount }) => amount));
  const keptHome = document.open <= 0n ? NOTHING : minor(halfUp({ n: kept * document.openHome, d: document.open }));
  const keptParts = share(
    keptHome,
    parts.map(({ amount }) => amount),
  );
  return parts.map(({ due }, i) => {
    const held = (keptParts[i] ?? NOTHING) as Minor;
    const cash = minus((homes[i] ?? NOTHING) as Minor, held);
    return { document, due, on: addDays(due, late), cash, withheld: held };
  });
}

export interface ExpectedCashMaterial {
  /** The day from which it looks ahead. */
  readonly on: IsoDate;
  readonly home: Currency;
  readonly parts: readonly ExpectedPart[];
  /** Money on account and open credit notes, above zero: it lessens what will be paid. */
  readonly held: Minor;
}

/** As many weeks are told apart; what lies behind them stands together. */
const WEEKS = 13;

interface Week {
  readonly key: string;
  readonly name: string;
  cash: Minor;
  withheld: Minor;
  count: number;
}

/** First days of weeks: the day itself, then Mondays. */
function weeksFrom(on: IsoDate): readonly IsoDate[] {
  const monday = mondayAfter(on);
  return [on, ...Array.from({ length: WEEKS - 1 }, (_, i) => addDays(monday, 7 * i))];
}

/** What is expected by week, oldest first; what should have come by habit before the day stands first and by itself. */
export function weeksOf({ on, parts }: Pick<ExpectedCashMaterial, 'on' | 'parts'>): readonly Week[] {
  const starts = weeksFrom(on);
  const late: Week = { key: 'late', name: 'Later than usual', cash: NOTHING, withheld: NOTHING, count: 0 };
  const weeks = starts.map((start): Week => {
    const end = addDays(mondayAfter(start), -1);
    return { key: start, name: `${writeDay(start)} to ${writeDay(end)}`, cash: NOTHING, withheld: NOTHING, count: 0 };
  });
  const beyond: Week = { key: 'beyond', name: 'Beyond', cash: NOTHING, withheld: NOTHING, count: 0 };
  const end = addDays(mondayAfter(starts.at(-1) ?? on), -1);
  for (const part of parts) {
    const at = starts.findLastIndex((start) => start <= part.on);
    const week = part.on > end ? beyond : (weeks[at] ?? late);
    week.cash = plus(week.cash, part.cash);
    week.withheld = plus(week.withheld, part.withheld);
    week.count++;
  }
  return [late, ...weeks, beyond];
}

/** What is expected between two days. */
export function expectedBetween(parts: readonly ExpectedPart[], from: IsoDate, until: IsoDate): Minor {
  return total(parts.flatMap(({ on, cash }) => (from <= on && on <= until ? [cash] : [])));
}

/**
 * Cash by week, from due dates and how many days late each customer usually pays, with what will be withheld taken off.
 * What customers hold on account lessens it and is named.
 */
export function expectedCash(material: ExpectedCashMaterial): Report {
  const { on, home, parts, held } = material;
  const weeks = weeksOf(material);
  const inOrder = parts.toSorted((a, b) => (a.on + a.document.number < b.on + b.document.number ? -1 : 1));
  return {
    title: 'Expected cash',
    from: on,
    until: on,
    currency: home,
    ...(parts.length > 0 && {
      chart: {
        kind: 'bars' as const,
        caption: 'By week',
        names: weeks.map(({ key, name }) => (isIsoDate(key) ? writeDay(key) : name)),
        series: [{ name: 'Cash', amounts: weeks.map(({ cash }) => cash) }],
      },
    }),
    tables: [
      tableOf({
        caption: 'By week',
        rows: weeks,
        keyOf: ({ key }) => key,
        columns: ({ words, amounts }) => [
          words('Week', ({ name }) => name),
          words('Invoices', ({ count }) => (count === 0 ? '' : String(count))),
          amounts('Cash', home, ({ cash }) => cash, { blank: true }),
          amounts('Withheld', home, ({ withheld }) => withheld, { blank: true }),
        ],
        nothing: '',
      }),
      tableOf({
        caption: 'Invoices',
        rows: inOrder.map((part, i) => ({ ...part, key: `${part.document.id}|${i}` })),
        keyOf: ({ key }) => key,
        behind: ({ document }) => ({ kind: 'document', id: document.id }),
        columns: ({ words, days, amounts }) => [
          words('Invoice', ({ document }) => document.number),
          words('Customer', ({ document }) => document.customerName),
          days('Due', ({ due }) => due),
          days('Expected', (part) => laterOf(part.on, on)),
          words('Usually late by', ({ due, on: expected }) => lateWords(daysBetween(due, expected))),
          amounts('Cash', home, ({ cash }) => cash),
          amounts('Withheld', home, ({ withheld }) => withheld, { blank: true }),
        ],
        nothing: 'No invoice is open.',
      }),
    ],
    notes:
      held === NOTHING
        ? []
        : [`Customers have money on account and open credit notes; what they pay with it does not come in again.`],
  };
}

const lateWords = (days: number): string => (days === 0 ? '' : `${days} ${Math.abs(days) === 1 ? 'day' : 'days'}`);
