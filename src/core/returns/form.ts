import { type Currency, exponentOf } from '@/core/kernel/currency';
import { tenTo } from '@/core/kernel/decimal';
import { type Minor, minor, minus, NOTHING, negated, plus, total } from '@/core/kernel/money';
import { halfUp } from '@/core/kernel/rounding';
import type { Category } from '@/core/tax/calcTypes';
import type { TaxBalance } from './return';
import type { StatedForm, TypedBox } from './statedForm';
import type { TaxEntry } from './taxEntry';

/** Which figure of an entry a box takes: its base counted once, its tax, or the base of each of its taxes. */
export type Figure = 'base' | 'tax' | 'base-of-tax';

/** What a box takes, beside what tax codes send there: entries that all of it fits. What is not said fits any. */
export interface Taking {
  readonly figure: Figure;
  readonly categories?: readonly Category[];
  readonly kinds?: readonly TaxEntry['kind'][];
  /** Ids of taxes; `*` at the beginning or the end stands for anything: `*-HST`. */
  readonly taxes?: readonly string[];
  /** Ids of taxes that it leaves out, in the same way. */
  readonly butTaxes?: readonly string[];
  /** Ids of codes or keys of stacks, in the same way. */
  readonly codes?: readonly string[];
  readonly butCodes?: readonly string[];
}

/** What a box is worked out of: other boxes, added and taken off. */
export interface Working {
  readonly sum?: readonly string[];
  readonly less?: readonly string[];
}

/** One box of a form. */
export interface FormBox extends Working {
  /** As it is printed, and as tax codes name it: `T1`. */
  readonly id: string;
  readonly words: string;
  /** Without it a box takes what tax codes send there, unless it is worked out. */
  readonly takes?: readonly Taking[];
  /** Stated in whole units: to the nearest, or without what is behind the point. */
  readonly whole?: 'nearest' | 'down';
  /** Nothing where it would be below zero. */
  readonly least?: 0;
  /** Without its sign. */
  readonly absolute?: true;
  /** Other books feed it, so that it may be typed. */
  readonly typed?: true;
  /** What it takes is counted in another box too. */
  readonly again?: true;
}

/** The return form of an authority. */
export interface ReturnForm {
  /** Jurisdiction of the registrations that file it. */
  readonly id: string;
  readonly title: string;
  /** Source of the boxes. */
  readonly source: string;
  /** Every base must stand in a box; else only taxes must. */
  readonly everyBase?: true;
  /** Each jurisdiction is stated by itself. */
  readonly byJurisdiction?: true;
  readonly boxes: readonly FormBox[];
  /** What the authority is owed, above zero, or owes. */
  readonly due: Working;
}

const fitsWord = (pattern: string, word: string): boolean =>
  pattern.startsWith('*')
    ? word.endsWith(pattern.slice(1))
    : pattern.endsWith('*')
      ? word.startsWith(pattern.slice(0, -1))
      : word === pattern;

const fitsAny = (patterns: readonly string[] | undefined, word: string): boolean =>
  patterns?.some((pattern) => fitsWord(pattern, word)) ?? true;

const fitsNone = (patterns: readonly string[] | undefined, word: string): boolean =>
  patterns === undefined || !fitsAny(patterns, word);

function fits(taking: Taking, { category, kind, taxId, code }: TaxBalance): boolean {
  const { categories, kinds, taxes, butTaxes, codes, butCodes } = taking;
  return (
    (categories === undefined || categories.includes(category)) &&
    (kinds === undefined || kinds.includes(kind)) &&
    fitsAny(taxes, taxId) &&
    fitsNone(butTaxes, taxId) &&
    fitsAny(codes, code) &&
    fitsNone(butCodes, code)
  );
}

const FIGURES: Readonly<Record<Figure, (row: TaxBalance) => Minor>> = {
  base: (row) => row.filingBaseOnce,
  tax: (row) => row.filingTax,
  'base-of-tax': (row) => row.filingBase,
};

const isWorkedOut = ({ sum, less }: FormBox): boolean => sum !== undefined || less !== undefined;

/** The figures of a row that go into a box. */
function figuresInto(box: FormBox, row: TaxBalance): readonly Figure[] {
  if (box.takes !== undefined) return box.takes.filter((taking) => fits(taking, row)).map(({ figure }) => figure);
  if (isWorkedOut(box)) return [];
  return [...(row.boxBase === box.id ? (['base'] as const) : []), ...(row.boxTax === box.id ? (['tax'] as const) : [])];
}

/** The rows of a return that something of goes into a box. */
export function rowsInto(box: FormBox, rows: readonly TaxBalance[]): readonly TaxBalance[] {
  return rows.filter((row) => figuresInto(box, row).some((figure) => FIGURES[figure](row) !== NOTHING));
}

function wholeOf(amount: Minor, how: 'nearest' | 'down', currency: Currency): Minor {
  const unit = tenTo(exponentOf(currency));
  return minor((how === 'down' ? amount / unit : halfUp({ n: amount, d: unit })) * unit);
}

/**
 * Fills a form in: boxes take what is theirs and what was typed, in whole units where they are stated so; those that are
 * worked out of others take these as they are stated.
 * @param inWhole every box is stated in whole units, where its own rule says nothing else.
 */
export function fillIn(
  form: ReturnForm,
  rows: readonly TaxBalance[],
  typed: readonly TypedBox[],
  currency: Currency,
  inWhole: boolean,
): StatedForm {
  const amounts = new Map<string, Minor>();
  const of = (id: string): Minor => amounts.get(id) ?? NOTHING;
  const worked = ({ sum = [], less = [] }: Working): Minor => minus(total(sum.map(of)), total(less.map(of)));
  for (const box of form.boxes) {
    const taken = total(rows.flatMap((row) => figuresInto(box, row).map((figure) => FIGURES[figure](row))));
    const own = total(typed.filter((one) => one.box === box.id).map(({ amount }) => amount));
    const exact = plus(plus(taken, own), worked(box));
    const signed = box.least === 0 && exact < 0n ? NOTHING : box.absolute && exact < 0n ? negated(exact) : exact;
    const whole = box.whole ?? (inWhole ? 'nearest' : null);
    amounts.set(box.id, whole === null ? signed : wholeOf(signed, whole, currency));
  }
  return {
    id: form.id,
    title: form.title,
    boxes: form.boxes.map(({ id, words }) => ({ box: id, words, amount: of(id) })),
    due: worked(form.due),
  };
}

/** How often a box counts in what is due: 1, -1, or 0 where it is stated only. */
export function weightInDue(form: ReturnForm, id: string): number {
  const boxes = new Map(form.boxes.map((box) => [box.id, box]));
  const weightIn = ({ sum = [], less = [] }: Working): number =>
    sum.reduce((weight, one) => weight + weightOf(one), 0) - less.reduce((weight, one) => weight + weightOf(one), 0);
  const weightOf = (one: string): number => {
    if (one === id) return 1;
    const box = boxes.get(one);
    return box === undefined ? 0 : weightIn(box);
  };
  return Math.sign(weightIn(form.due));
}

/** What of a return a form does not state as it should. */
export interface FormFault {
  readonly codeName: string;
  readonly what: 'tax' | 'base';
  /** Boxes that take it; none, or more than one. */
  readonly boxes: readonly string[];
}

/**
 * Entries whose tax stands in no box or in two, or whose base does where the form states every base; boxes that say they
 * count again are passed over.
 */
export function formFaults(form: ReturnForm, rows: readonly TaxBalance[]): readonly FormFault[] {
  const counting = form.boxes.filter(({ again }) => again !== true);
  const takers = (row: TaxBalance, what: 'tax' | 'base') =>
    counting.flatMap((box) => figuresInto(box, row).flatMap((figure) => (figure === what ? [box.id] : [])));
  const faults = rows.flatMap((row): FormFault[] => {
    const ofTax = takers(row, 'tax');
    const ofBase = takers(row, 'base');
    const needsBase = form.everyBase === true && row.filingBaseOnce !== NOTHING;
    return [
      ...(row.filingTax !== NOTHING && ofTax.length !== 1
        ? [{ codeName: row.codeName, what: 'tax' as const, boxes: ofTax }]
        : []),
      ...((needsBase && ofBase.length === 0) || ofBase.length > 1
        ? [{ codeName: row.codeName, what: 'base' as const, boxes: ofBase }]
        : []),
    ];
  });
  const key = ({ codeName, what, boxes }: FormFault) => `${codeName}|${what}|${boxes.join()}`;
  return [...new Map(faults.map((fault) => [key(fault), fault])).values()];
}
