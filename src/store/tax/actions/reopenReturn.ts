import { reopen } from '@/core/decisions/tax/reopenReturn';
import { isIsoDate } from '@/core/kernel/date';
import { refuse } from '@/core/kernel/result';
import { periodIdOf, spanName, spanOf } from '@/core/returns/calendar';
import type { TaxPeriod } from '@/core/returns/return';
import { present } from '../../load';
import type { Action } from '../../perform';

/** Opens the newest filed return of a registration again. `start` is the first day of its period. */
export const reopenReturn: Action<
  { readonly registrationId: string; readonly start: string; readonly reason: string },
  TaxPeriod
> = {
  name: 'reopen return',
  async decide(db, { registrationId, start, reason }, moment) {
    const registration = await db.registrations.get(registrationId);
    if (registration === undefined || !isIsoDate(start)) return refuse({ code: 'not-found', path: 'period' });
    const period = await db.taxPeriods.get(periodIdOf(registrationId, start));
    const filed = period?.filed;
    if (period === undefined || filed === null || filed === undefined)
      return refuse({ code: 'not-filed', path: 'period', period: spanName(spanOf(registration.frequency, start)) });
    const [entry, lines] = await Promise.all([
      db.journal.get(filed.entryId),
      db.journalLines.where('entryId').equals(filed.entryId).toArray(),
    ]);
    return reopen({ registration, period, entry: present(entry, 'the entry of the filing'), lines }, reason, moment);
  },
};
