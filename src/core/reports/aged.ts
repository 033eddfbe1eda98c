import type { Currency } from '@/core/kernel/currency';
import type { IsoDate } from '@/core/kernel/date';
import { grouped } from '@/core/kernel/grouped';
import { NOTHING, total } from '@/core/kernel/money';
import { AGE_LIMITS, type Aged, agedOf, ageHeads, type OpenItem } from '@/core/settlement/account';
import type { Report } from './report';
import { tableOf } from './tableOf';

/** What an age is counted from. */
export type AgedBy = 'due' | 'date';

export interface AgedMaterial {
  readonly on: IsoDate;
  readonly home: Currency;
  readonly by: AgedBy;
  /** What is open of all customers at the end of the day. */
  readonly items: readonly OpenItem[];
  /** Names of customers by id. */
  readonly names: ReadonlyMap<string, string>;
}

interface AgedCustomer {
  readonly id: string;
  readonly name: string;
  readonly aged: Aged;
}

/** A debt by the day of its document falls due on that day, all of it. */
const byDate = (item: OpenItem): OpenItem => ({
  ...item,
  parts: item.parts.length === 0 ? [] : [{ due: item.date, amount: total(item.parts.map(({ amount }) => amount)) }],
});

/** What customers owe by age at the end of a day, a table for each currency, the home currency first. */
export function agedReport({ on, home, by, items, names }: AgedMaterial): Report {
  const counted = by === 'due' ? items : items.map(byDate);
  const heads = [by === 'due' ? 'Not yet due' : 'Of the day', ...ageHeads(AGE_LIMITS)];
  const byCurrency = [...grouped(counted, ({ currency }) => currency)]
    .map(([code, own]) => ({ currency: code as Currency, own }))
    .sort((a, b) => (a.currency === home ? -1 : b.currency === home ? 1 : a.currency < b.currency ? -1 : 1));
  const tables = byCurrency.map(({ currency, own }) =>
    tableOf<AgedCustomer>({
      caption: `Receivables in ${currency}`,
      rows: [...grouped(own, ({ customerId }) => customerId)]
        .map(([id, theirs]) => ({ id, name: names.get(id) ?? id, aged: agedOf(theirs, on) }))
        .sort((a, b) => (a.name < b.name ? -1 : 1)),
      keyOf: ({ id }) => id,
      behind: ({ id }) => ({ kind: 'customer', id }),
      columns: ({ words, amounts }) => [
        words('Customer', ({ name }) => name),
        ...heads.map((head, i) => amounts(head, currency, ({ aged }) => aged.columns[i] ?? NOTHING, { blank: true })),
        amounts('On account', currency, ({ aged }) => aged.held, { blank: true }),
        amounts('Balance', currency, ({ aged }) => aged.balance),
      ],
      nothing: '',
    }),
  );
  const nothing = tableOf<AgedCustomer>({
    caption: 'Receivables',
    rows: [],
    keyOf: ({ id }) => id,
    columns: ({ words }) => [words('Customer', ({ name }) => name)],
    nothing: 'Nothing is receivable on this date.',
  });
  const inHome = agedOf(
    counted.filter(({ currency }) => currency === home),
    on,
  );
  return {
    title: 'Aged receivables',
    from: on,
    until: on,
    currency: home,
    tables: tables.length === 0 ? [nothing] : tables,
    ...(inHome.columns.some((amount) => amount !== NOTHING) && {
      chart: {
        kind: 'bars' as const,
        caption: `By days ${by === 'due' ? 'overdue' : 'since the document'}, ${home}`,
        names: heads,
        series: [{ name: 'Receivable', amounts: inHome.columns }],
      },
    }),
    notes: [],
  };
}
