'use client';

import { filledForm } from '@/core/decisions/tax/fileReturn';
import { dayOf, writeDate } from '@/core/kernel/date';
import { minus } from '@/core/kernel/money';
import type { Span } from '@/core/returns/calendar';
import type { Filing, TaxReturn } from '@/core/returns/return';
import type { TypedBox } from '@/core/returns/statedForm';
import { type FigureChange, versionChanges } from '@/core/returns/versionChanges';
import { versionsOf } from '@/store/tax/queries/versions';
import { Money } from '@/ui/Money';
import { ListTable } from '../shared/ListTable';
import { useOpenBook } from '../shell/BookContext';
import { useBook } from '../shell/book';

const WHAT: Readonly<Record<FigureChange['what'], string>> = { box: 'box', base: 'taxable amount', tax: 'tax' };

interface VersionChangesProps {
  readonly span: Span;
  readonly figures: TaxReturn;
  readonly filed: Filing | null;
  readonly typed: readonly TypedBox[];
}

/** What of a return is another than when it was last filed; nothing for one that never was opened again. */
export function VersionChanges({ span, figures, filed, typed }: VersionChangesProps) {
  const { registration } = useOpenBook();
  const versions = useBook((db) => versionsOf(db, registration.id, span.start), [registration.id, span.start]);
  const last = versions?.at(-1);
  if (last === undefined) return null;
  const form = filed?.form ?? filledForm(registration, figures, typed)?.stated ?? null;
  const changes = versionChanges(last, { figures, form });
  const currency = registration.filingCurrency;
  const since = writeDate(dayOf(last.at));
  if (changes.length === 0)
    return <p className="mt-4 text-soft">Nothing has changed since the version that was filed on {since}.</p>;
  const money = (head: string, of: (change: FigureChange) => FigureChange['now']) => ({
    head,
    align: 'right' as const,
    value: of,
    cell: (change: FigureChange) => <Money amount={of(change)} currency={currency} />,
  });
  return (
    <section className="mt-6" aria-label="Changed since it was filed">
      <h2 className="mb-1 font-semibold font-serif">Changed since it was filed on {since}</h2>
      <ListTable
        caption="Changed since it was filed"
        rows={changes}
        keyOf={({ name, what }) => `${what} ${name}`}
        columns={[
          { head: 'Figure', cell: ({ name, what }) => `${name}, ${WHAT[what]}` },
          money('Filed', ({ before }) => before),
          money('Now', ({ now }) => now),
          money('Change', ({ before, now }) => minus(now, before)),
        ]}
      />
    </section>
  );
}
