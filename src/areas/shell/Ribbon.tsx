'use client';

import { useEffect, useRef } from 'react';
import { spanName } from '@/core/returns/calendar';
import { ribbon } from '@/store/tax/queries/periods';
import { Mark } from '@/ui/Mark';
import { Money } from '@/ui/Money';
import { useOpenBook } from './BookContext';
import { today, useBookAtRest } from './book';
import { openCommands } from './Commands';
import { PERIOD_WORDS, usePicked } from './period';

const MOST_CELLS = 6;

/** The tax periods of the registration; the picked one is what the desk speaks of. */
export function Ribbon() {
  const { registration, registrations } = useOpenBook();
  const { start: picked, pick, pickRegistration } = usePicked();
  const cells =
    useBookAtRest((db) => ribbon(db, registration, today(), MOST_CELLS), [registration.id], [registration]) ?? [];
  const current = picked ?? cells.at(-1)?.span.start;
  const bar = useRef<HTMLDivElement>(null);
  // On a narrow window not all of them are seen at once.
  useEffect(() => {
    if (current !== undefined)
      bar.current?.querySelector('[aria-pressed=true]')?.scrollIntoView({ block: 'nearest', inline: 'nearest' });
  }, [current]);
  return (
    <header className="flex h-12 shrink-0 items-stretch border-rule border-b">
      <div className="w-[236px] shrink-0 border-rule border-r px-3.5 py-1">
        {registrations.length === 1 ? (
          <div className="truncate font-semibold">{registration.name}</div>
        ) : (
          <select
            aria-label="Registration"
            value={registration.id}
            onChange={(event) => pickRegistration(event.target.value)}
            className="-ml-1 block w-full cursor-pointer truncate bg-transparent font-semibold"
          >
            {registrations.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </select>
        )}
        <div className="truncate text-soft text-xs">
          {registration.frequency}, {registration.basis === 'on-issue' ? 'on issue' : 'on payment'},{' '}
          {registration.filingCurrency}
        </div>
      </div>
      <div ref={bar} role="toolbar" aria-label="Tax periods" className="flex min-w-0 flex-1 overflow-x-auto">
        {cells.map(({ span, state, figures }) => (
          <button
            key={span.start}
            type="button"
            aria-pressed={span.start === current}
            onClick={() => pick(span.start)}
            title={`${spanName(span)}: ${PERIOD_WORDS[state]}`}
            className={`w-[112px] shrink-0 cursor-pointer border-rule border-r px-2 text-left text-sm ${
              span.start === current ? 'bg-sheet shadow-[inset_0_3px_0_var(--rust)]' : 'hover:bg-sheet'
            }`}
          >
            <span className={span.start === current ? 'text-ink' : 'text-soft'}>
              <Mark kind={state} label={PERIOD_WORDS[state]} /> {spanName(span).replace(/ \d{4}$/, '')}
            </span>
            <Money amount={figures.filingTax} currency={registration.filingCurrency} className="block pl-5" />
          </button>
        ))}
      </div>
      <div className="flex items-center px-3">
        <button
          type="button"
          onClick={openCommands}
          className="h-8 cursor-pointer whitespace-nowrap rounded border border-rule bg-sheet px-3 text-soft hover:border-soft"
        >
          Find or do… <kbd className="ml-2 font-sans text-xs">Ctrl K</kbd>
        </button>
      </div>
    </header>
  );
}
