'use client';

import { useState } from 'react';
import { figuresOf } from '@/core/documents/content';
import { freezeDraft } from '@/core/documents/freeze';
import { datesFrom, type Recurring, restAfter } from '@/core/documents/recurring';
import { type IsoDate, writeDate } from '@/core/kernel/date';
import { wordRefusals } from '@/core/wording/refusals';
import { dateOfRecurring } from '@/store/sales/queries/recurring';
import { Button } from '@/ui/Button';
import { MailViewTable } from '../../shared/delivery/MailViewTable';
import { useBook } from '../../shell/book';
import { viewOfContent } from '../../shell/delivery/mailing';

/** Dates that are looked ahead. */
const AHEAD = 12;

interface NextDocumentProps {
  readonly recurring: Recurring;
  /** Empty where nothing was made. */
  readonly lastMade: IsoDate | '';
}

/** Its next dates, and the document that one of them will be, with the rates and prices of that day. */
export function NextDocument({ recurring, lastMade }: NextDocumentProps) {
  const dates = datesFrom(recurring, restAfter(recurring.first, lastMade), AHEAD).filter(({ skipped }) => !skipped);
  const [picked, setPicked] = useState<IsoDate | null>(null);
  const date = dates.some((one) => one.date === picked) ? picked : (dates[0]?.date ?? null);
  const next = useBook(
    async (db) => (date === null ? null : await dateOfRecurring(db, recurring.id, date)),
    [recurring, date],
  );
  if (dates.length === 0) return <p className="mt-4 text-soft">No date is left.</p>;
  const frozen = next ? freezeDraft(next.draft, next.number, next.customer ?? null, next.setting) : null;
  return (
    <section aria-label="Next document" className="mt-6 border-rule border-t pt-3">
      <h2 className="mb-1 font-semibold font-serif">As it will be</h2>
      <p className="mb-3 flex flex-wrap gap-x-1 gap-y-1">
        {dates.map((one) => (
          <Button
            key={one.date}
            weight="quiet"
            aria-pressed={one.date === date}
            className={one.date === date ? 'font-semibold' : ''}
            onClick={() => setPicked(one.date)}
          >
            {writeDate(one.date)}
          </Button>
        ))}
      </p>
      {frozen?.ok === false && <p className="mb-2 text-brick">▲ {wordRefusals(frozen.refusals)}</p>}
      {frozen?.ok === true && (
        <MailViewTable
          label="The document of that date"
          view={viewOfContent(frozen.value, figuresOf(frozen.value), frozen.value.buyer.language ?? 'en')}
        />
      )}
    </section>
  );
}
