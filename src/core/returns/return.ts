import { type Currency, exponentOf } from '@/core/kernel/currency';
import type { IsoDate } from '@/core/kernel/date';
import { tenTo } from '@/core/kernel/decimal';
import { grouped } from '@/core/kernel/grouped';
import { type Minor, minor, NOTHING, plus, total } from '@/core/kernel/money';
import { halfUp } from '@/core/kernel/rounding';
import type { Category } from '@/core/tax/calcTypes';
import { chargesNothing } from '@/core/tax/taxCode';
import type { StatedForm, TypedBox } from './statedForm';
import type { TaxEntry } from './taxEntry';

/** Kept balance of one tax of one code in one period; moves with every tax entry. */
export interface TaxBalance {
  readonly periodId: string;
  readonly code: string;
  /** Rate of the entries, since a code may change its rate inside a period. */
  readonly percent: string;
  readonly jurisdictionId: string;
  readonly jurisdictionName: string;
  readonly taxId: string;
  readonly kind: TaxEntry['kind'];
  readonly codeName: string;
  readonly category: Category;
  readonly boxBase: string;
  readonly boxTax: string;
  readonly base: Minor;
  /** The part of the base that no other row of the same code holds already. */
  readonly baseOnce: Minor;
  /** The part of the base that no other tax of the same jurisdiction holds; missing in returns filed before version 5. */
  readonly baseHere?: Minor;
  readonly tax: Minor;
  readonly filingCurrency: Currency;
  readonly filingBase: Minor;
  readonly filingBaseOnce: Minor;
  readonly filingTax: Minor;
  readonly entries: number;
  readonly lateEntries: number;
}

/** Sum of one box of the return, in the currency of the return. */
export interface BoxSum {
  readonly box: string;
  readonly amount: Minor;
}

/** The return of a period: one row for each tax of each code and rate, and the sums. */
export interface TaxReturn {
  readonly rows: readonly TaxBalance[];
  readonly base: Minor;
  readonly tax: Minor;
  readonly filingBase: Minor;
  readonly filingTax: Minor;
  /** What goes into the boxes of the form, by box. */
  readonly boxes: readonly BoxSum[];
}

/** A period's row in the book once something belongs to it or it was filed. */
export interface TaxPeriod {
  readonly id: string;
  readonly registrationId: string;
  readonly start: IsoDate;
  readonly end: IsoDate;
  /** Null while open. */
  readonly filed: Filing | null;
}

/** What was typed into the boxes of a return, until it is filed and after. */
export interface ReturnBoxes {
  /** Id of the period. */
  readonly id: string;
  readonly registrationId: string;
  readonly typed: readonly TypedBox[];
}

export interface Filing {
  readonly at: string;
  readonly operator: string;
  readonly entryId: string;
  readonly figures: TaxReturn;
  /** Why it was filed in spite of differences; empty when the proof held. */
  readonly note: string;
  /** The form as it was stated, with what was typed into it; missing where no form comes with the program. */
  readonly form?: StatedForm;
  readonly typed?: readonly TypedBox[];
}

/** A return that was filed once and opened again; kept for ever, as it was filed. */
export interface ReopenedFiling extends Filing {
  readonly id: string;
  readonly registrationId: string;
  readonly periodId: string;
  readonly reopened: {
    readonly at: string;
    readonly operator: string;
    readonly reason: string;
    /** Entry that mirrors the one of the filing. */
    readonly entryId: string;
  };
}

/** The key that groups entries into a row of the return. */
export function rowKey(row: Pick<TaxEntry, 'code' | 'percent' | 'jurisdictionId' | 'taxId' | 'kind'>): string {
  return `${row.code}|${row.percent}|${row.jurisdictionId}|${row.taxId}|${row.kind}`;
}

/** What a row takes from the entries it sums. */
const OF_ENTRY = [
  'periodId',
  'code',
  'percent',
  'jurisdictionId',
  'jurisdictionName',
  'taxId',
  'kind',
  'codeName',
  'category',
  'boxBase',
  'boxTax',
  'filingCurrency',
] as const;

const blank = (entry: TaxEntry): TaxBalance => ({
  ...(Object.fromEntries(OF_ENTRY.map((field) => [field, entry[field]])) as Pick<TaxEntry, (typeof OF_ENTRY)[number]>),
  base: NOTHING,
  baseOnce: NOTHING,
  baseHere: NOTHING,
  tax: NOTHING,
  filingBase: NOTHING,
  filingBaseOnce: NOTHING,
  filingTax: NOTHING,
  entries: 0,
  lateEntries: 0,
});

/** Adds entries to the balances of their period and code. Entries must all be of one period. */
export function addToBalances(balances: readonly TaxBalance[], entries: readonly TaxEntry[]): readonly TaxBalance[] {
  const rows = new Map(balances.map((row) => [rowKey(row), row]));
  for (const entry of entries) {
    const row = rows.get(rowKey(entry)) ?? blank(entry);
    const once = entry.part === 0;
    rows.set(rowKey(entry), {
      ...row,
      base: plus(row.base, entry.base),
      baseOnce: once ? plus(row.baseOnce, entry.base) : row.baseOnce,
      baseHere: plus(row.baseHere ?? NOTHING, entry.partOfJurisdiction === 0 ? entry.base : NOTHING),
      tax: plus(row.tax, entry.tax),
      filingBase: plus(row.filingBase, entry.filingBase),
      filingBaseOnce: once ? plus(row.filingBaseOnce, entry.filingBase) : row.filingBaseOnce,
      filingTax: plus(row.filingTax, entry.filingTax),
      entries: row.entries + 1,
      lateEntries: row.lateEntries + (entry.late ? 1 : 0),
    });
  }
  return [...rows.values()];
}

function boxesOf(rows: readonly TaxBalance[]): readonly BoxSum[] {
  const sums = new Map<string, Minor>();
  const add = (box: string, amount: Minor) => {
    if (box !== '') sums.set(box, plus(sums.get(box) ?? NOTHING, amount));
  };
  for (const row of rows) {
    add(row.boxBase, row.filingBaseOnce);
    add(row.boxTax, row.filingTax);
  }
  return [...sums].map(([box, amount]) => ({ box, amount })).sort((a, b) => (a.box < b.box ? -1 : 1));
}

/** The return from the balances of a period, rows by code and rate. */
export function returnOf(balances: readonly TaxBalance[]): TaxReturn {
  const rows = [...balances].sort((a, b) => (rowKey(a) < rowKey(b) ? -1 : 1));
  const sum = (of: (row: TaxBalance) => Minor) => total(rows.map(of));
  return {
    rows,
    base: sum((row) => row.baseOnce),
    tax: sum((row) => row.tax),
    filingBase: sum((row) => row.filingBaseOnce),
    filingTax: sum((row) => row.filingTax),
    boxes: boxesOf(rows),
  };
}

/** What one jurisdiction is told. */
export interface JurisdictionRow {
  readonly jurisdictionId: string;
  readonly jurisdictionName: string;
  /** What it does not exempt: taxable and not liable together. */
  readonly base: Minor;
  /** Exempt by a certificate or by the standing of the customer. */
  readonly exempt: Minor;
  /** Not liable by its kind: zero-rated, exempt without certificate, reverse charge, outside its territory. */
  readonly notLiable: Minor;
  readonly tax: Minor;
  readonly filingTax: Minor;
}

/** Tax by jurisdiction, in the order of the rows: what each authority is owed. */
export function byJurisdiction(rows: readonly TaxBalance[]): readonly JurisdictionRow[] {
  const sum = (of: readonly TaxBalance[]) => total(of.map((row) => row.baseHere ?? row.base));
  return [...grouped(rows, (row) => row.jurisdictionId)].map(([jurisdictionId, own]) => {
    const standing = own.filter((row) => row.kind !== 'exempt');
    return {
      jurisdictionId,
      jurisdictionName: own[0]?.jurisdictionName ?? jurisdictionId,
      base: sum(standing),
      exempt: sum(own.filter((row) => row.kind === 'exempt')),
      notLiable: sum(standing.filter(({ category }) => chargesNothing(category))),
      tax: total(own.map((row) => row.tax)),
      filingTax: total(own.map((row) => row.filingTax)),
    };
  });
}

/**
 * Names of codes whose tax, or standard-rated base, stands in no box, on a return whose form has boxes: it would not be
 * stated. Many a form asks for no box of what is exported or exempt.
 */
export function codesWithoutBox({ rows, boxes }: TaxReturn): readonly string[] {
  if (boxes.length === 0) return [];
  const missing = rows.filter(
    ({ boxBase, boxTax, category, tax }) => boxTax === '' && (tax !== 0n || (category === 'S' && boxBase === '')),
  );
  return [...new Set(missing.map(({ codeName }) => codeName))];
}

/** The return as it is stated: where the authority wants whole units, its boxes are rounded to them, each on its own. */
export function statedReturn(figures: TaxReturn, inWhole: boolean, currency: Currency): TaxReturn {
  if (!inWhole) return figures;
  return { ...figures, boxes: figures.boxes.map(({ box, amount }) => ({ box, amount: wholeUnits(amount, currency) })) };
}

/** An amount of the return in whole units of a currency: 1234.50 is 1235. */
export function wholeUnits(amount: Minor, currency: Currency): Minor {
  const unit = tenTo(exponentOf(currency));
  return minor(halfUp({ n: amount, d: unit }) * unit);
}
