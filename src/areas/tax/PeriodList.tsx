'use client';

import type { IsoDate } from '@/core/kernel/date';
import { spanName } from '@/core/returns/calendar';
import { ribbon } from '@/store/tax/queries/periods';
import { Mark } from '@/ui/Mark';
import { Money } from '@/ui/Money';
import { useOpenBook } from '../shell/BookContext';
import { today, useBook } from '../shell/book';
import { PERIOD_WORDS } from '../shell/period';

/** Five years of monthly periods. */
const PERIODS_SHOWN = 60;

interface PeriodListProps {
  readonly picked: IsoDate;
  readonly onPick: (start: IsoDate) => void;
}

/** All periods of the registration, newest first. */
export function PeriodList({ picked, onPick }: PeriodListProps) {
  const { registration } = useOpenBook();
  const cells =
    useBook((db) => ribbon(db, registration, today(), PERIODS_SHOWN), [registration.id], [registration]) ?? [];
  return (
    <ul className="min-h-0 flex-1 overflow-auto pl-3.5">
      {[...cells].reverse().map(({ span, state, figures }) => (
        <li key={span.start} className="border-rule border-b">
          <button
            type="button"
            aria-pressed={span.start === picked}
            onClick={() => onPick(span.start)}
            className={`-ml-3.5 block w-[calc(100%+14px)] cursor-pointer border-l-[3px] py-1 pr-2.5 pl-[11px] text-left ${
              span.start === picked ? 'border-rust bg-sheet' : 'border-transparent hover:bg-sheet'
            }`}
          >
            <span className="flex gap-1">
              <Mark kind={state} />
              <span className="flex-1">{spanName(span)}</span>
              <Money amount={figures.filingTax} currency={registration.filingCurrency} />
            </span>
            <span className="block pl-5 text-soft text-xs">{PERIOD_WORDS[state]}</span>
          </button>
        </li>
      ))}
    </ul>
  );
}
