import { nextToClose } from '@/core/decisions/ledger/closeYear';
import type { IsoDate } from '@/core/kernel/date';
import { type Minor, NOTHING, plus } from '@/core/kernel/money';
import { type FiscalYear, fiscalYearOf, type YearClosing } from '@/core/ledger/fiscalYear';
import { present } from '../../load';
import type { BookDb } from '../../schema';

/** How the fiscal years of the book stand. */
export interface Years {
  /** First month, from 1. */
  readonly yearStart: number;
  readonly lockedUntil: IsoDate | '';
  /** Newest first. */
  readonly closings: readonly YearClosing[];
  /** The first year that is not closed; null where nothing was posted. */
  readonly next: FiscalYear | null;
}

/** The fiscal years of the book: closed ones, and the next to close. */
export function fiscalYears(db: BookDb): Promise<Years> {
  return Promise.all([db.book.get('book'), db.yearClosings.toArray(), db.journal.orderBy('[date+id]').first()]).then(
    ([found, closings, first]) => {
      const { yearStart = 1, lockedUntil = '' } = present(found, 'the book');
      return {
        yearStart,
        lockedUntil,
        closings: closings.sort((a, b) => (a.end < b.end ? 1 : -1)),
        next: nextToClose(closings, first?.date ?? '', (day) => fiscalYearOf(day, yearStart)),
      };
    },
  );
}

/** What each account stands at on the last day of a month, by code: debits less credits. */
export function balancesAtMonthEnd(db: BookDb, day: IsoDate): Promise<ReadonlyMap<string, Minor>> {
  return db.accountMonths
    .where('month')
    .belowOrEqual(day.slice(0, 7))
    .toArray()
    .then((months) => {
      const sums = new Map<string, Minor>();
      for (const { account, amount } of months) sums.set(account, plus(sums.get(account) ?? NOTHING, amount));
      return sums;
    });
}
