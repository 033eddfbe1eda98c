import { dateOf, placeFrom, type Rhythm } from '@/core/documents/rhythm';
import { addDays, endOfMonth, type IsoDate, laterOf } from '@/core/kernel/date';
import type { Minor } from '@/core/kernel/money';

/** When a journal is posted again. */
export interface JournalRepeat {
  readonly rhythm: Rhythm;
  readonly first: IsoDate;
  /** Last day on which it may be; empty for no end. */
  readonly until: IsoDate | '';
}

/** A journal that is kept to be written again, by hand or by itself. */
export interface JournalTemplate {
  readonly id: string;
  readonly name: string;
  readonly text: string;
  readonly sides: readonly { readonly account: string; readonly amount: Minor }[];
  /** Each is taken back on the first day of the month after it, as accruals are. */
  readonly takenBack: boolean;
  /** Null for one that is posted by hand alone. */
  readonly repeat: JournalRepeat | null;
  /** Day of the last one that posted itself; empty for none. */
  readonly madeUntil: IsoDate | '';
  /** Kept for its index: the next day on which it posts itself; empty for none. */
  readonly nextDue: IsoDate | '';
}

/** The next day of a repeat after the last that was made; empty where it has ended. */
export function nextJournal({ rhythm, first, until }: JournalRepeat, madeUntil: IsoDate | ''): IsoDate | '' {
  const from = madeUntil === '' ? first : laterOf(first, addDays(madeUntil, 1));
  const next = dateOf(first, rhythm, placeFrom(first, rhythm, from));
  return until !== '' && next > until ? '' : next;
}

/** Day on which a journal that is taken back is: the first of the month after it. */
export const takenBackOn = (date: IsoDate): IsoDate => addDays(endOfMonth(date), 1);
