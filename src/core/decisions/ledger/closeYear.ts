import type { Decision, Moment } from '@/core/book/changes';
import type { Book } from '@/core/book/rows';
import { addDays, type IsoDate, isIsoDate } from '@/core/kernel/date';
import { type Minor, NOTHING, negated, total } from '@/core/kernel/money';
import { accept, refuse } from '@/core/kernel/result';
import { type Account, accountFor } from '@/core/ledger/account';
import { entryOf, type JournalLine } from '@/core/ledger/entry';
import { type FiscalYear, type YearClosing, yearName } from '@/core/ledger/fiscalYear';
import { reversalSides } from '@/core/ledger/posting/reversal';

export interface CloseYearMaterial {
  readonly book: Book;
  readonly chart: readonly Account[];
  /** The first year that is not closed; null where nothing was ever posted. */
  readonly next: FiscalYear | null;
  readonly before: YearClosing | undefined;
  /** What each account stands at on its last day, by code: debits less credits. */
  readonly balances: ReadonlyMap<string, Minor>;
}

/**
 * Closes a fiscal year: what its income and expenses came to goes to retained earnings on its last day, and nothing is posted
 * up to that day any more. Years are closed in order, after they have ended.
 */
export function closeYear(material: CloseYearMaterial, end: string, moment: Moment): Decision<YearClosing> {
  const { book, chart, next, before, balances } = material;
  if (next === null || !isIsoDate(end)) return refuse({ code: 'not-found', path: 'year' });
  if (end < next.end) return refuse({ code: 'locked-by-year', path: 'year', until: addDays(next.start, -1) });
  if (end > next.end) return refuse({ code: 'earlier-open', path: 'year', period: yearName(next) });
  if (next.end >= moment.today)
    return refuse({ code: 'not-ended', path: 'year', period: yearName(next), until: next.end });
  const results = chart.flatMap(({ code, type }) => {
    const amount = balances.get(code) ?? NOTHING;
    return (type === 'income' || type === 'expense') && amount !== NOTHING
      ? [{ account: code, amount: negated(amount) }]
      : [];
  });
  const kept = negated(total(results.map(({ amount }) => amount)));
  const sides = [...results, ...(kept === NOTHING ? [] : [{ account: accountFor(chart, 'retained'), amount: kept }])];
  const entryId = moment.newId();
  const text = `Year ${yearName(next)} closed`;
  const posted = entryOf(
    { id: entryId, date: next.end, kind: 'closing', text, sourceId: next.end, at: moment.now },
    sides,
  );
  const value: YearClosing = {
    ...next,
    id: next.end,
    entryId,
    at: moment.now,
    operator: moment.operator,
    reopened: before?.reopened ?? [],
    isClosed: true,
  };
  const lockedUntil = (book.lockedUntil ?? '') > next.end ? book.lockedUntil : next.end;
  return accept({
    value,
    changes: {
      add: { journal: [posted.entry], journalLines: posted.lines },
      put: { yearClosings: [value], book: [{ ...book, ...(lockedUntil !== undefined && { lockedUntil }) }] },
      audit: { subject: text, about: [value.id], after: { result: kept } },
    },
  });
}

export interface ReopenYearMaterial {
  readonly book: Book;
  /** All closings, those opened again too. */
  readonly closings: readonly YearClosing[];
  /** Of the entry that closed it. */
  readonly lines: readonly JournalLine[];
}

/** Opens the newest closed year again: the entry of its closing is mirrored on its day, and it is no longer locked. */
export function reopenYear(
  { book, closings, lines }: ReopenYearMaterial,
  id: string,
  reason: string,
  moment: Moment,
): Decision<YearClosing> {
  const closed = closings.filter(({ isClosed }) => isClosed).sort((a, b) => (a.end < b.end ? -1 : 1));
  const newest = closed.at(-1);
  if (newest === undefined || !closed.some((one) => one.id === id)) return refuse({ code: 'not-found', path: 'year' });
  if (newest.id !== id) return refuse({ code: 'later-filed', path: 'year', until: newest.end });
  if (reason.trim() === '') return refuse({ code: 'missing', path: 'reason', wanted: 'say-why-reopened' });
  const entryId = moment.newId();
  const text = `Year ${yearName(newest)} opened again`;
  const posted = entryOf(
    { id: entryId, date: newest.end, kind: 'closing', text, sourceId: newest.end, at: moment.now },
    reversalSides(lines, text),
  );
  const { now: at, operator } = moment;
  const value: YearClosing = {
    ...newest,
    isClosed: false,
    reopened: [...newest.reopened, { at, operator, reason: reason.trim(), closingEntryId: newest.entryId, entryId }],
  };
  const lockedUntil: IsoDate | '' = closed.at(-2)?.end ?? '';
  return accept({
    value,
    changes: {
      add: { journal: [posted.entry], journalLines: posted.lines },
      put: { yearClosings: [value], book: [{ ...book, lockedUntil }] },
      audit: { subject: text, about: [value.id], before: newest, after: { reason: reason.trim() } },
    },
  });
}

/**
 * Sets the day up to which nothing is posted any more, or the first month of the fiscal year. A closed year stays locked, and
 * once a year is closed its months stay what they are.
 */
export function setLedgerDays(
  book: Book,
  closings: readonly YearClosing[],
  input: { readonly lockedUntil: string; readonly yearStart: number },
): Decision<Book> {
  const { lockedUntil, yearStart } = input;
  if (lockedUntil !== '' && !isIsoDate(lockedUntil))
    return refuse({ code: 'invalid', path: 'lockedUntil', wanted: 'give-a-day', found: lockedUntil });
  const closed = closings.filter(({ isClosed }) => isClosed);
  const last = closed.reduce<IsoDate | ''>((newest, { end }) => (end > newest ? end : newest), '');
  if (last !== '' && lockedUntil < last) return refuse({ code: 'locked-by-year', path: 'lockedUntil', until: last });
  if (!Number.isInteger(yearStart) || yearStart < 1 || yearStart > 12)
    return refuse({ code: 'invalid', path: 'yearStart', wanted: 'choose-month' });
  if (closed.length > 0 && yearStart !== (book.yearStart ?? 1))
    return refuse({ code: 'locked-by-year', path: 'yearStart', until: last as IsoDate });
  const value: Book = { ...book, lockedUntil, yearStart };
  return accept({
    value,
    changes: {
      put: { book: [value] },
      audit: {
        subject: 'Fiscal year and lock',
        before: { lockedUntil: book.lockedUntil ?? '', yearStart: book.yearStart ?? 1 },
        after: { lockedUntil, yearStart },
      },
    },
  });
}

/** The year after the last that is closed, or that of the first entry. */
export function nextToClose(
  closings: readonly YearClosing[],
  first: IsoDate | '',
  yearOf: (day: IsoDate) => FiscalYear,
): FiscalYear | null {
  const closed = closings.filter(({ isClosed }) => isClosed);
  const last = closed.reduce<IsoDate | ''>((newest, { end }) => (end > newest ? end : newest), '');
  if (last !== '') return yearOf(addDays(last, 1));
  return first === '' ? null : yearOf(first);
}
