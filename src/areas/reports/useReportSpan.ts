'use client';

import { useSearchParams } from 'next/navigation';
import { useEffect, useState } from 'react';
import { isIsoDate } from '@/core/kernel/date';
import { typedDay } from '../shared/typedDay';

/** First and last day as they were typed, and what is chosen beside them. */
export interface Asked {
  readonly from: string;
  readonly until: string;
  readonly chosen: string;
}

/** What a report is asked for; it stands in the address too, so that a link brings back the same view. */
export function useReportSpan(usual: () => Pick<Asked, 'from' | 'until'>): {
  readonly typed: Asked;
  readonly setTyped: (typed: Asked) => void;
} {
  const asked = useSearchParams();
  const [typed, setTyped] = useState<Asked>(() => {
    const { from, until } = usual();
    return { from: asked.get('from') ?? from, until: asked.get('until') ?? until, chosen: asked.get('of') ?? '' };
  });
  useEffect(() => {
    const [from, until] = [typedDay(typed.from), typedDay(typed.until)];
    if (isIsoDate(from) && isIsoDate(until))
      history.replaceState(
        null,
        '',
        `?${new URLSearchParams({ from, until, ...(typed.chosen !== '' && { of: typed.chosen }) })}`,
      );
  }, [typed]);
  return { typed, setTyped };
}
