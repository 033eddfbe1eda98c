'use client';

import { useSearchParams } from 'next/navigation';
import { useEffect, useState } from 'react';
import { isIsoDate } from '@/core/kernel/date';
import { typedDay } from '../shared/typedDay';

/** First and last day as they were typed. */
export interface TypedSpan {
  readonly from: string;
  readonly until: string;
}

/** The days of a report; they stand in the address too, so that a link brings back the same view. */
export function useReportSpan(usual: () => TypedSpan): {
  readonly typed: TypedSpan;
  readonly setTyped: (typed: TypedSpan) => void;
} {
  const asked = useSearchParams();
  const [typed, setTyped] = useState<TypedSpan>(() => {
    const { from, until } = usual();
    return { from: asked.get('from') ?? from, until: asked.get('until') ?? until };
  });
  useEffect(() => {
    const [from, until] = [typedDay(typed.from), typedDay(typed.until)];
    if (isIsoDate(from) && isIsoDate(until)) history.replaceState(null, '', `?from=${from}&until=${until}`);
  }, [typed]);
  return { typed, setTyped };
}
