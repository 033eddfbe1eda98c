import { keepTypedBoxes } from '@/core/decisions/tax/typedBoxes';
import { isIsoDate } from '@/core/kernel/date';
import { refuse } from '@/core/kernel/result';
import { periodIdOf } from '@/core/returns/calendar';
import type { ReturnBoxes } from '@/core/returns/return';
import type { TypedBox } from '@/core/returns/statedForm';
import { loadBook } from '../../load';
import type { Action } from '../../perform';

interface TypedBoxesInput {
  readonly registrationId: string;
  /** First day of the period. */
  readonly start: string;
  readonly typed: readonly TypedBox[];
}

/** Keeps what was typed into the boxes of a return that is not filed. */
export const typeBoxes: Action<TypedBoxesInput, ReturnBoxes> = {
  name: 'type boxes of return',
  async decide(db, { registrationId, start, typed }) {
    const registration = await db.registrations.get(registrationId);
    if (registration === undefined || !isIsoDate(start)) return refuse({ code: 'not-found', path: 'period' });
    const id = periodIdOf(registrationId, start);
    const [period, before, chart, { business }] = await Promise.all([
      db.taxPeriods.get(id),
      db.returnBoxes.get(id),
      db.accounts.toArray(),
      loadBook(db),
    ]);
    return keepTypedBoxes({ registration, period, before, chart, homeCurrency: business.homeCurrency }, start, typed);
  },
};
