import type { Decision, Moment } from '@/core/book/changes';
import { addDays, laterOf } from '@/core/kernel/date';
import { accept, refuse } from '@/core/kernel/result';
import { entryOf, type JournalEntry, type JournalLine } from '@/core/ledger/entry';
import { reversalSides } from '@/core/ledger/posting/reversal';
import { spanName } from '@/core/returns/calendar';
import type { ReopenedFiling, TaxPeriod } from '@/core/returns/return';
import type { Registration } from '@/core/tax/registration';

export interface ReopenMaterial {
  readonly registration: Registration;
  readonly period: TaxPeriod;
  /** The entry of its filing. */
  readonly entry: JournalEntry;
  readonly lines: readonly JournalLine[];
}

/**
 * Opens the newest filed period again: the entry of its filing is mirrored on its own day, what was filed is kept as a
 * version. What went to later periods because this one was closed stays there.
 */
export function reopen(
  { registration, period, entry, lines }: ReopenMaterial,
  reason: string,
  moment: Moment,
): Decision<TaxPeriod> {
  const { filed, start, end } = period;
  if (filed === null) return refuse({ code: 'not-filed', path: 'period', period: spanName(period) });
  if (registration.filedUntil !== end)
    return refuse({ code: 'later-filed', path: 'period', until: laterOf(end, registration.filedUntil || end) });
  if (reason.trim() === '') return refuse({ code: 'missing', path: 'reason', wanted: 'say-why-reopened' });
  const text = `Return ${spanName(period)}, ${registration.name} reopened`;
  const entryId = moment.newId();
  const posted = entryOf(
    { id: entryId, date: entry.date, kind: 'reopening', text, sourceId: period.id, at: moment.now },
    reversalSides(lines, text),
  );
  const reopened = { at: moment.now, operator: moment.operator, reason: reason.trim(), entryId };
  const open: TaxPeriod = { ...period, filed: null };
  const version: ReopenedFiling = {
    ...filed,
    id: moment.newId(),
    registrationId: registration.id,
    periodId: period.id,
    reopened,
  };
  const before = addDays(start, -1);
  return accept({
    value: open,
    changes: {
      add: { journal: [posted.entry], journalLines: posted.lines, reopenedFilings: [version] },
      put: {
        taxPeriods: [open],
        registrations: [{ ...registration, filedUntil: start <= registration.keptFrom ? '' : before }],
      },
      audit: {
        subject: `${registration.name} ${spanName(period)}`,
        about: [period.id],
        before: { tax: filed.figures.tax },
        after: { reason: reason.trim() },
      },
    },
  });
}
