import type { Book } from '@/core/book/rows';
import { closeYear, reopenYear, setLedgerDays } from '@/core/decisions/ledger/closeYear';
import { isIsoDate } from '@/core/kernel/date';
import { refuse } from '@/core/kernel/result';
import type { YearClosing } from '@/core/ledger/fiscalYear';
import { loadBook } from '../../load';
import type { Action } from '../../perform';
import { balancesAtMonthEnd, fiscalYears } from '../queries/years';

/** Closes a fiscal year; `end` is its last day. */
export const closeFiscalYear: Action<{ readonly end: string }, YearClosing> = {
  name: 'close year',
  async decide(db, { end }, moment) {
    if (!isIsoDate(end)) return refuse({ code: 'not-found', path: 'year' });
    const [book, chart, years, before, balances] = await Promise.all([
      loadBook(db),
      db.accounts.toArray(),
      fiscalYears(db),
      db.yearClosings.get(end),
      balancesAtMonthEnd(db, end),
    ]);
    return closeYear({ book, chart, next: years.next, before, balances }, end, moment);
  },
};

/** Opens the newest closed year again. */
export const reopenFiscalYear: Action<{ readonly id: string; readonly reason: string }, YearClosing> = {
  name: 'open year again',
  async decide(db, { id, reason }, moment) {
    const [book, closings, closing] = await Promise.all([
      loadBook(db),
      db.yearClosings.toArray(),
      db.yearClosings.get(id),
    ]);
    const lines = await db.journalLines
      .where('entryId')
      .equals(closing?.entryId ?? '')
      .toArray();
    return reopenYear({ book, closings, lines }, id, reason, moment);
  },
};

/** Sets the day up to which nothing is posted, and the first month of the fiscal year. */
export const keepLedgerDays: Action<{ readonly lockedUntil: string; readonly yearStart: number }, Book> = {
  name: 'set fiscal year and lock',
  async decide(db, input) {
    const [book, closings] = await Promise.all([loadBook(db), db.yearClosings.toArray()]);
    return setLedgerDays(book, closings, input);
  },
};
