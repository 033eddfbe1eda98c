'use client';

import { useEffect, useRef, useState } from 'react';
import { countEntries } from '@/store/ledger/queries/ledger';
import { Stopped } from '@/workers/client';
import { useBook } from '../shell/book';

/** Nothing is posted for so long before it is made again. */
const PAUSE_MS = 300;

/** What is made of the book in a worker, how to stop it and to begin again. */
export interface Made<T> {
  /** The last one that was made of what is asked for, or null. */
  readonly value: T | null;
  readonly running: boolean;
  /** Why there is none; empty for no fault. */
  readonly fault: string;
  readonly stop: () => void;
  readonly again: () => void;
}

/**
 * Makes something of the book in a worker, and again when something was posted.
 * @param of what is asked for, as text; empty for nothing yet.
 */
export function useMade<T>(of: string, make: (signal: AbortSignal) => Promise<T>): Made<T> {
  const entries = useBook(countEntries);
  const [attempt, setAttempt] = useState(0);
  const [reached, setReached] = useState<{ of: string; value: T | null; fault: string }>({
    of: '',
    value: null,
    fault: '',
  });
  const [running, setRunning] = useState(false);
  const control = useRef<AbortController | null>(null);
  /** What was last asked for. */
  const begun = useRef('');
  const makeNow = useRef(make);
  useEffect(() => {
    makeNow.current = make;
  });
  useEffect(() => {
    if (of === '' || entries === undefined) return;
    const mine = new AbortController();
    control.current = mine;
    setRunning(true);
    // `attempt` asks for it anew.
    void attempt;
    const begin = () =>
      (mine.signal.aborted ? Promise.reject(new Stopped()) : makeNow.current(mine.signal))
        .then(
          (value) => control.current === mine && setReached({ of, value, fault: '' }),
          (error: unknown) => {
            if (control.current !== mine) return;
            const fault = error instanceof Stopped ? 'Stopped.' : `It could not be made: ${(error as Error).message}`;
            setReached({ of, value: null, fault });
          },
        )
        .finally(() => control.current === mine && setRunning(false));
    // While one thing after the other is posted, it waits for a pause.
    const timer = setTimeout(() => void begin(), begun.current === of ? PAUSE_MS : 0);
    begun.current = of;
    return () => {
      clearTimeout(timer);
      control.current = null;
      mine.abort();
    };
  }, [of, entries, attempt]);
  const isOf = reached.of === of;
  return {
    value: isOf ? reached.value : null,
    fault: isOf && !running ? reached.fault : '',
    running,
    stop: () => control.current?.abort(),
    again: () => setAttempt((before) => before + 1),
  };
}
