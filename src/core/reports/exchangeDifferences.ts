import type { Revaluation } from '@/core/currency/revaluation';
import { type Currency, exponentOf } from '@/core/kernel/currency';
import { addDays, type IsoDate, writeDate } from '@/core/kernel/date';
import { tenTo, trimmed, writeUnits } from '@/core/kernel/decimal';
import { grouped } from '@/core/kernel/grouped';
import { type Minor, minus, NOTHING, negated, total } from '@/core/kernel/money';
import { halfUp } from '@/core/kernel/rounding';
import { showMoney, showNumber } from '@/core/kernel/show';
import type { JournalEntry, JournalLine } from '@/core/ledger/entry';
import { type Allocation, differenceOf } from '@/core/settlement/allocation';
import type { Behind, Report, ReportAmount, ReportRow, ReportTable } from './report';

/** What the report looks at: everything between its days. */
export interface ExchangeMaterial {
  readonly from: IsoDate;
  readonly until: IsoDate;
  readonly home: Currency;
  /** Lines of the account of realised differences, and of that of unrealised ones. */
  readonly realised: readonly JournalLine[];
  readonly unrealised: readonly JournalLine[];
  /** The entries of these lines. */
  readonly entries: readonly JournalEntry[];
  /** Allocations that were made or undone between the days. */
  readonly allocations: readonly Allocation[];
  /** Revaluations from the day before the first on: what they posted is taken back on the next day. */
  readonly revaluations: readonly Revaluation[];
}

/** Decimals of a rate that is worked out of two amounts. */
const RATE_DECIMALS = 6;

/** Units of a currency for one home unit, as two amounts that stand for each other say; empty where one is nothing. */
function rateBetween(amount: Minor, currency: Currency, inHome: Minor, home: Currency): string {
  if (amount === 0n || inHome === 0n) return '';
  const n = amount * tenTo(exponentOf(home)) * tenTo(RATE_DECIMALS);
  const ratio = { n: inHome < 0n ? -n : n, d: (inHome < 0n ? -inHome : inHome) * tenTo(exponentOf(currency)) };
  return showNumber(trimmed(writeUnits(halfUp(ratio), RATE_DECIMALS)));
}

const isIn = (day: IsoDate, { from, until }: Pick<ExchangeMaterial, 'from' | 'until'>): boolean =>
  from <= day && day <= until;

/** Gains above zero: the accounts of differences are expenses, whose debits are losses. */
const gainOf = (lines: readonly JournalLine[]): Minor => negated(total(lines.map(({ amount }) => amount)));

interface Settlement {
  readonly allocation: Allocation;
  readonly undone: boolean;
}

/** Which settlement each entry belongs to. */
function settlementsByEntry(allocations: readonly Allocation[]): ReadonlyMap<string, Settlement> {
  const found = new Map<string, Settlement>();
  for (const allocation of allocations) {
    for (const id of allocation.entryIds) found.set(id, { allocation, undone: false });
    for (const id of allocation.undone?.entryIds ?? []) found.set(id, { allocation, undone: true });
  }
  return found;
}

function settledCells({ allocation, undone }: Settlement, home: Currency): Omit<ReportRow, 'key'>['cells'] {
  const { creditNumber, debtNumber, currency, amount, debtHome, creditHome } = allocation;
  const money = (value: Minor, of: Currency): ReportAmount => ({
    amount: undone ? negated(value) : value,
    currency: of,
  });
  const [carried, settled] = [debtHome, creditHome].map((inHome) => rateBetween(amount, currency, inHome, home));
  return [
    `${creditNumber} on ${debtNumber}${undone ? ', undone' : ''}`,
    money(amount, currency),
    money(debtHome, home),
    money(creditHome, home),
    `${carried} → ${settled} ${currency} for 1 ${home}`,
  ];
}

/** Every line of the account of realised differences, with the settlement that it comes from. */
function realisedTable(material: ExchangeMaterial): ReportTable {
  const { home, realised, entries, allocations } = material;
  const byEntry = settlementsByEntry(allocations);
  const entryOf = new Map(entries.map((entry) => [entry.id, entry]));
  const rows = [...grouped(realised, ({ entryId }) => entryId)].map(([entryId, lines]): ReportRow => {
    const entry = entryOf.get(entryId);
    const settlement = byEntry.get(entryId);
    const gain = gainOf(lines);
    // An entry that takes several settlements back together has the sum of their differences.
    const explains =
      settlement !== undefined &&
      gain === (settlement.undone ? differenceOf(settlement.allocation) : negated(differenceOf(settlement.allocation)));
    const behind: Behind = { kind: 'entry', id: entryId };
    const cells = explains ? settledCells(settlement, home) : [entry?.text ?? '', '', '', '', ''];
    return { key: entryId, cells: [entry?.date ?? '', ...cells, { amount: gain, currency: home }], behind };
  });
  const sum = { amount: gainOf(realised), currency: home };
  return {
    caption: 'Realised',
    columns: [
      { head: 'Date', kind: 'date' },
      { head: 'Settlement', kind: 'words' },
      { head: 'Amount', kind: 'amount' },
      { head: 'Carried at', kind: 'amount' },
      { head: 'Settled at', kind: 'amount' },
      { head: 'Rates', kind: 'words' },
      { head: 'Gain or loss', kind: 'amount' },
    ],
    rows,
    sums: ['', '', '', '', '', '', sum],
    nothing: 'Nothing was settled at another rate than it was carried at.',
  };
}

/** Revaluations of the period by currency: what was posted, and what of earlier ones was taken back. */
function unrealisedTable(material: ExchangeMaterial): ReportTable {
  const { home, revaluations, unrealised, entries } = material;
  const own = new Set(revaluations.flatMap(({ entryId, mirrorId }) => [entryId, mirrorId]));
  const currencies = [...new Set(revaluations.flatMap((one) => one.currencies.map(({ currency }) => currency)))].sort();
  const sumOf = (currency: Currency, counts: (revaluation: Revaluation) => boolean) =>
    total(
      revaluations
        .filter(counts)
        .flatMap((one) => one.currencies.flatMap((each) => (each.currency === currency ? [each.change] : []))),
    );
  const amount = (value: Minor): ReportAmount => ({ amount: value, currency: home });
  const rows = currencies.flatMap((currency): readonly ReportRow[] => {
    const back = negated(sumOf(currency, ({ date }) => isIn(addDays(date, 1), material)));
    const posted = sumOf(currency, ({ date }) => isIn(date, material));
    if (back === NOTHING && posted === NOTHING) return [];
    return [{ key: currency, cells: [currency, amount(back), amount(posted), amount(minus(posted, negated(back)))] }];
  });
  const byHand = unrealised.filter(({ entryId }) => !own.has(entryId));
  const textOf = new Map(entries.map(({ id, text }) => [id, text]));
  const others = [...grouped(byHand, ({ entryId }) => entryId)].map(
    ([entryId, lines]): ReportRow => ({
      key: entryId,
      cells: [textOf.get(entryId) ?? '', '', '', amount(gainOf(lines))],
      behind: { kind: 'entry', id: entryId },
    }),
  );
  return {
    caption: 'Unrealised, by currency',
    columns: [
      { head: 'Currency', kind: 'words' },
      { head: 'Taken back', kind: 'amount' },
      { head: 'Revalued', kind: 'amount' },
      { head: 'Gain or loss', kind: 'amount' },
    ],
    rows: [...rows, ...others],
    sums: ['', '', '', amount(gainOf(unrealised))],
    nothing: 'Nothing was revalued between these days.',
  };
}

/** Open items of the last day that was revalued, each with its workings; null where none was. */
function itemsTable({ home, revaluations, ...span }: ExchangeMaterial): ReportTable | null {
  const newest = revaluations.filter(({ date }) => isIn(date, span)).at(-1);
  if (newest === undefined) return null;
  const rateOf = new Map(newest.currencies.map((one) => [one.currency, one]));
  const rows = newest.items.map(({ id, kind, number, customerName, currency, open, openHome, worth, difference }) => {
    const rate = rateOf.get(currency);
    const workings =
      rate === undefined
        ? ''
        : `${showMoney(open, currency)} ÷ ${showNumber(rate.perHome)} of ${writeDate(rate.rateDate)}`;
    return {
      key: id,
      cells: [
        number,
        customerName,
        { amount: open, currency },
        workings,
        { amount: worth, currency: home },
        { amount: openHome, currency: home },
        { amount: difference, currency: home },
      ],
      behind: { kind, id },
    };
  });
  const sum = { amount: total(newest.items.map(({ difference }) => difference)), currency: home };
  return {
    caption: `Open items as at ${writeDate(newest.date)}`,
    columns: [
      { head: 'Item', kind: 'words' },
      { head: 'Customer', kind: 'words' },
      { head: 'Open', kind: 'amount' },
      { head: 'Workings', kind: 'words' },
      { head: 'Worth', kind: 'amount' },
      { head: 'Carried at', kind: 'amount' },
      { head: 'Gain or loss', kind: 'amount' },
    ],
    rows,
    sums: ['', '', '', '', '', '', sum],
    nothing: 'Nothing was open in another currency.',
  };
}

/**
 * Exchange differences between two days, gains above zero: those realised by settlements, each with what it was carried
 * and settled at, and those of revaluations with the items of the last one. Sums are those of the two accounts in the ledger.
 */
export function exchangeReport(material: ExchangeMaterial): Report {
  const { from, until, home, revaluations, unrealised } = material;
  const items = itemsTable(material);
  const counted = minus(
    total(
      revaluations.flatMap(({ date, currencies }) =>
        isIn(date, material) ? currencies.map(({ change }) => change) : [],
      ),
    ),
    total(
      revaluations.flatMap(({ date, currencies }) =>
        isIn(addDays(date, 1), material) ? currencies.map(({ change }) => change) : [],
      ),
    ),
  );
  const beside = minus(gainOf(unrealised), counted);
  return {
    title: 'Exchange differences',
    from,
    until,
    currency: home,
    tables: [realisedTable(material), unrealisedTable(material), ...(items === null ? [] : [items])],
    notes:
      beside === NOTHING
        ? []
        : [
            `${showMoney(beside, home)} ${home} of the unrealised differences were posted by journals, not by a revaluation.`,
          ],
  };
}
