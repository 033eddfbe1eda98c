'use client';

import { useEffect, useState } from 'react';
import type { Suggestion } from '@/core/bank/suggest';
import { onBook, Stopped } from '@/workers/client';

interface Suggestions {
  /** By line; undefined for one that is not looked at yet. */
  readonly of: (lineId: string) => readonly Suggestion[] | undefined;
  readonly looking: boolean;
  /** Why it could not be looked; empty while it could. */
  readonly fault: string;
}

/**
 * What lines may be, worked out in a worker and again when lines come or go. What was found for a line stays until it is
 * looked at anew, so that the next line never waits.
 * @param days how far what the book recorded may lie from a line.
 */
export function useSuggestions(lineIds: readonly string[], days: number): Suggestions {
  const [found, setFound] = useState<ReadonlyMap<string, readonly Suggestion[]>>(new Map());
  const [looking, setLooking] = useState(false);
  const [fault, setFault] = useState('');
  const ids = lineIds.join(' ');
  useEffect(() => {
    if (ids === '') return;
    const control = new AbortController();
    setLooking(true);
    onBook((face) => face.suggest(ids.split(' '), days), control.signal)
      .then((lines) => {
        setFound(new Map(lines.map(({ lineId, suggestions }) => [lineId, suggestions])));
        setFault('');
        setLooking(false);
      })
      .catch((error: Error) => {
        if (error instanceof Stopped) return;
        setFault(error.message);
        setLooking(false);
      });
    return () => control.abort();
  }, [ids, days]);
  return { of: (lineId) => found.get(lineId), looking, fault };
}
