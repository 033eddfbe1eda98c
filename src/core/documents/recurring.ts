import * as yup from 'yup';
import { exponentOf } from '@/core/kernel/currency';
import { addDays, type IsoDate, isIsoDate, isoDate } from '@/core/kernel/date';
import { type Decimal, isDecimal, ratioOf, readTypedDecimal, tenTo, trimmed, writeUnits } from '@/core/kernel/decimal';
import { add, divide, multiply, ONE, whole } from '@/core/kernel/ratio';
import { halfUp } from '@/core/kernel/rounding';
import { dateText, neededText } from '@/core/kernel/validate';
import { wanted } from '@/core/kernel/wanted';
import type { Draft, DraftLine } from './draft';
import { currencyOf } from './readLine';
import { dateOf, placeFrom, RHYTHM_UNITS, type Rhythm } from './rhythm';

export const RECURRING_DOES = ['draft', 'issue', 'send'] as const;

/** What is done when it is due: a draft is kept, it is issued, or issued and sent. */
export type RecurringDoes = (typeof RECURRING_DOES)[number];

/** Prices change from a date on: by a percent, or to those of a list. */
export interface PriceChange {
  readonly from: IsoDate;
  /** Percent that prices rise by, as typed: `2.5`, `-3`; empty for a list. */
  readonly percent: string;
  /** Price list whose prices are taken; empty for a percent. */
  readonly priceListId: string;
}

/** A document that comes again. What it says is a draft of the same id, kept apart from drafts that are issued. */
export interface Recurring {
  readonly id: string;
  readonly name: string;
  readonly rhythm: Rhythm;
  readonly first: IsoDate;
  /** Last day on which it comes; empty for none. */
  readonly until: IsoDate | '';
  /** How often it comes in all; 0 for as often as its days allow. */
  readonly times: number;
  readonly does: RecurringDoes;
  readonly priceChanges: readonly PriceChange[];
  /** Dates on which it does not come. */
  readonly skipped: readonly IsoDate[];
  readonly paused: boolean;
  /** Kept for its index: the next date that was not made; empty for none. */
  readonly nextDue: IsoDate | '';
  /** Group of customers whom it is for, in the place of the one that its draft names; each date is a run then. */
  readonly groupId?: string;
}

export const MADE_STATES = ['begun', 'waits', 'draft', 'issued', 'sent'] as const;

/**
 * What came of one date: `begun` while its draft is on the way, `waits` where a person must look, `draft` where that is all
 * that was asked for, `issued`, `sent`.
 */
export type MadeState = (typeof MADE_STATES)[number];

/** That one date was made: there is one of it for each date, whoever makes it. */
export interface RecurringMade {
  /** `recurring id|date`. */
  readonly id: string;
  readonly recurringId: string;
  readonly date: IsoDate;
  /** Id of the draft, and of the document that it becomes; of a run where it is for a group. */
  readonly documentId: string;
  readonly state: MadeState;
  /** Why it waits, or was not sent; empty for nothing. */
  readonly why: string;
  /** 1 while something is still done with it by itself: database indexes hold no booleans. */
  readonly isGoing: 0 | 1;
  /** Instant. */
  readonly at: string;
}

export function madeId(recurringId: string, date: IsoDate): string {
  return `${recurringId}|${date}`;
}

const counted = (least: number, most: number) =>
  yup
    .number()
    .typeError(wanted('give-count'))
    .integer(wanted('give-count'))
    .min(least, wanted('give-count'))
    .max(most, wanted('give-count'))
    .defined();

const priceChangeSchema = yup
  .object({
    from: dateText('give-a-day'),
    percent: yup
      .string()
      .defined()
      .test('percent', wanted('give-percentage'), (v) => v === '' || readTypedDecimal(v) !== null),
    priceListId: yup.string().defined(),
  })
  .test('one', wanted('percent-or-list'), function one({ percent, priceListId }) {
    return (percent === '') !== (priceListId === '') || this.createError({ path: `${this.path}.percent` });
  });

export const recurringSchema = yup
  .object({
    id: neededText('give-id'),
    name: neededText('give-a-name', 80),
    rhythm: yup.object({
      unit: yup.string().oneOf(RHYTHM_UNITS, wanted('choose-rhythm')).defined(),
      every: counted(1, 999),
      lastDay: yup.boolean().defined(),
    }),
    first: dateText('give-a-day'),
    until: yup
      .string()
      .defined()
      .test('date', wanted('give-a-day'), (v) => v === '' || isIsoDate(v)),
    times: counted(0, 9999),
    does: yup.string().oneOf(RECURRING_DOES).defined(),
    priceChanges: yup.array().of(priceChangeSchema).defined(),
    skipped: yup.array().of(dateText('give-a-day')).defined(),
    paused: yup.boolean().defined(),
    nextDue: yup.string().defined(),
    groupId: yup.string().optional(),
  })
  .test('order', wanted('until-not-before-first'), function order({ first, until }) {
    return until === '' || until >= first || this.createError({ path: 'until' });
  });

type Dated = Pick<Recurring, 'first' | 'rhythm' | 'until' | 'times' | 'skipped'>;

/** Whether the n-th date is one at all, by its end. */
function isWithin({ until, times }: Dated, date: IsoDate, n: number): boolean {
  return (until === '' || date <= until) && (times === 0 || n < times);
}

/** Its dates from a day on, skipped ones too, in order; at most so many. */
export function datesFrom(
  recurring: Dated,
  day: IsoDate,
  most: number,
): readonly { readonly date: IsoDate; readonly skipped: boolean }[] {
  const { first, rhythm, skipped } = recurring;
  const found: { date: IsoDate; skipped: boolean }[] = [];
  for (let n = placeFrom(first, rhythm, day); found.length < most; n++) {
    const date = dateOf(first, rhythm, n);
    if (!isWithin(recurring, date, n)) break;
    found.push({ date, skipped: skipped.includes(date) });
  }
  return found;
}

/** The day from which its dates are still to be made: after the last one that was. */
export function restAfter(first: IsoDate, lastMade: IsoDate | ''): IsoDate {
  return lastMade >= first ? addDays(lastMade as IsoDate, 1) : first;
}

/** The next date that is made, from a day on; empty where none is left. */
export function nextFrom(recurring: Dated, day: IsoDate): IsoDate | '' {
  // Skipped dates are few, and one more than they are finds one that is not.
  return datesFrom(recurring, day, recurring.skipped.length + 1).find(({ skipped }) => !skipped)?.date ?? '';
}

/** The time that one date stands for: from it to the day before the next. */
export function spanOfDate({ first, rhythm }: Dated, date: IsoDate): { readonly from: IsoDate; readonly to: IsoDate } {
  const next = dateOf(first, rhythm, placeFrom(first, rhythm, date) + 1);
  return { from: date, to: addDays(next, -1) };
}

/** A price raised by a percent, to the decimals of its currency or those that it has. */
function raised(price: string, percent: string, decimals: number): string {
  const read = readTypedDecimal(percent);
  if (!isDecimal(price) || read === null) return price;
  const own = price.split('.')[1]?.length ?? 0;
  const places = Math.max(own, decimals);
  const by = multiply(ratioOf(price), add(ONE, divide(ratioOf(read), whole(100n))));
  return writeUnits(halfUp({ n: by.n * tenTo(places), d: by.d }), places);
}

/** Placeholders in the texts of a recurring document. */
export const RECURRING_PLACEHOLDERS = ['month', 'year', 'date', 'period from', 'period to'] as const;

const PLACE = /\{([^{}\n]{1,20})\}/g;

/** How days are written for a customer. */
export interface DayWriter {
  readonly day: (day: IsoDate) => string;
  /** `November 2026`. */
  readonly month: (day: IsoDate) => string;
}

/** Days in the words of a language, as they stand in the texts of its documents. */
export function dayWriter(language: string): DayWriter {
  const inWords = (options: Intl.DateTimeFormatOptions) => {
    const format = new Intl.DateTimeFormat(language, { ...options, timeZone: 'UTC' });
    return (day: IsoDate) => format.format(new Date(`${day}T00:00:00Z`));
  };
  return {
    day: inWords({ day: 'numeric', month: 'long', year: 'numeric' }),
    month: inWords({ month: 'long', year: 'numeric' }),
  };
}

/** Prices that a list has for lines, by the id of the line, as its decision found them. */
export type ListedPrices = ReadonlyMap<string, Pick<DraftLine, 'price' | 'priceFrom'>>;

/** The texts of a draft with the days of a date filled in, in the words of a language. */
export function withDaysFilled(draft: Draft, recurring: Dated, date: IsoDate, language: string): Draft {
  const write = dayWriter(language);
  const { from, to } = spanOfDate(recurring, date);
  const values: Readonly<Record<string, string>> = {
    month: write.month(date),
    year: date.slice(0, 4),
    date: write.day(date),
    'period from': write.day(from),
    'period to': write.day(to),
  };
  const filled = (text: string) => text.replace(PLACE, (found, name: string) => values[name] ?? found);
  return {
    ...draft,
    subject: filled(draft.subject),
    note: filled(draft.note),
    buyerReference: filled(draft.buyerReference),
    orderNumber: filled(draft.orderNumber),
    lines: draft.lines.map((line) => ({ ...line, description: filled(line.description) })),
  };
}

/**
 * The draft of one date: dated that day, its prices as they are then; its texts are filled in for whom it is for
 * (`withDaysFilled`). The rates and terms of the day apply, as for any draft.
 * @param id of the draft and of the document that it becomes.
 * @param listed prices of the newest list that is to be taken by then; those that come later rise from there.
 */
export function draftOfDate(
  recurring: Recurring,
  pattern: Draft,
  date: IsoDate,
  id: string,
  homeCurrency: string,
  listed: ListedPrices,
): Draft {
  const changes = dueChanges(recurring, date);
  const lastList = changes.findLastIndex(({ priceListId }) => priceListId !== '');
  const decimals = exponentOf(currencyOf(pattern, homeCurrency as never));
  const lines = pattern.lines.map((line): DraftLine => {
    const list = listed.get(line.id);
    const since = list === undefined ? changes : changes.slice(lastList + 1);
    const price = since
      .filter(({ percent }) => percent !== '')
      .reduce((now, { percent }) => raised(now, percent, decimals), list?.price ?? line.price);
    return {
      ...line,
      ...list,
      price: isDecimal(price) ? priceText(price, decimals) : price,
    };
  });
  const { recurringId: _, ...content } = pattern;
  return {
    ...content,
    id,
    familyId: id,
    revision: 0,
    issueDate: date,
    taxPoint: '',
    supplyFrom: '',
    accountingDate: '',
    held: null,
    lines,
  };
}

/** A price without zeros that say nothing, but with those of its currency. */
function priceText(price: Decimal, decimals: number): string {
  const short = trimmed(price);
  const own = short.split('.')[1]?.length ?? 0;
  return own >= decimals ? short : price;
}

/** What of its price changes applies on a date, oldest first. */
export function dueChanges({ priceChanges }: Pick<Recurring, 'priceChanges'>, date: IsoDate): readonly PriceChange[] {
  return priceChanges
    .filter(({ from }) => from <= date)
    .sort((a, b) => (a.from < b.from ? -1 : a.from > b.from ? 1 : 0));
}

/** A recurring document that is made of a draft: monthly, from its day on. */
export function newRecurring(id: string, name: string, first: string): Recurring {
  return {
    id,
    name,
    rhythm: { unit: 'month', every: 1, lastDay: false },
    first: isoDate(first),
    until: '',
    times: 0,
    does: 'draft',
    priceChanges: [],
    skipped: [],
    paused: true,
    nextDue: '',
  };
}
