import { keepTypedBoxes, type TypedBoxesMaterial } from '@/core/decisions/tax/typedBoxes';
import { type IsoDate, isIsoDate } from '@/core/kernel/date';
import { refuse } from '@/core/kernel/result';
import { periodIdOf } from '@/core/returns/calendar';
import type { ReturnBoxes } from '@/core/returns/return';
import type { TypedBox } from '@/core/returns/statedForm';
import type { Registration } from '@/core/tax/registration';
import { loadBook } from '../../load';
import type { Action } from '../../perform';
import type { BookDb } from '../../schema';

interface TypedBoxesInput {
  readonly registrationId: string;
  /** First day of the period. */
  readonly start: string;
  readonly typed: readonly TypedBox[];
}

/** What typed boxes of the period that begins on a day are held against. */
export function typedBoxesMaterial(
  db: BookDb,
  registration: Registration,
  start: IsoDate,
): Promise<TypedBoxesMaterial> {
  const id = periodIdOf(registration.id, start);
  return Promise.all([db.taxPeriods.get(id), db.returnBoxes.get(id), db.accounts.toArray(), loadBook(db)]).then(
    ([period, before, chart, { business }]) => ({
      registration,
      period,
      before,
      chart,
      homeCurrency: business.homeCurrency,
    }),
  );
}

/** Keeps what was typed into the boxes of a return that is not filed. */
export const typeBoxes: Action<TypedBoxesInput, ReturnBoxes> = {
  name: 'type boxes of return',
  async decide(db, { registrationId, start, typed }) {
    const registration = await db.registrations.get(registrationId);
    if (registration === undefined || !isIsoDate(start)) return refuse({ code: 'not-found', path: 'period' });
    return keepTypedBoxes(await typedBoxesMaterial(db, registration, start), start, typed);
  },
};
