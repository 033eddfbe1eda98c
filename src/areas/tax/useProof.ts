'use client';

import { useCallback, useEffect, useRef, useState } from 'react';
import type { IsoDate } from '@/core/kernel/date';
import type { Proof } from '@/core/returns/proof';
import { countEntries } from '@/store/ledger/queries/ledger';
import { onBook, Stopped } from '@/workers/client';
import { useBook } from '../shell/book';

export type ProofState = { readonly retry: () => void } & (
  | { readonly state: 'running'; readonly stop: () => void }
  | { readonly state: 'stopped' }
  | { readonly state: 'failed'; readonly message: string }
  | { readonly state: 'done'; readonly proof: Proof }
);

type Stage =
  | { state: 'running' }
  | { state: 'stopped' }
  | { state: 'failed'; message: string }
  | { state: 'done'; proof: Proof };

const RUNNING: Stage = { state: 'running' };

/**
 * Proves a period in a worker; again whenever the book's journal or documents change.
 * @param returned the return of the period as it was read; undefined until it was, and nothing is proved before.
 */
export function useProof(registrationId: string, start: IsoDate, returned: unknown): ProofState {
  const key = `${registrationId}|${start}`;
  const [reached, setReached] = useState({ key, stage: RUNNING });
  const [attempt, setAttempt] = useState(0);
  const running = useRef<AbortController | null>(null);
  const entries = useBook((db) => countEntries(db));

  // biome-ignore lint/correctness/useExhaustiveDependencies: a changed book or a retry proves again
  useEffect(() => {
    // What was begun before they are known would be begun again as soon as they are.
    if (returned === undefined || entries === undefined) return;
    const control = new AbortController();
    running.current = control;
    const setStage = (stage: Stage) => setReached({ key, stage });
    setStage(RUNNING);
    onBook((face) => face.prove(registrationId, start), control.signal).then(
      (proof) => !control.signal.aborted && setStage({ state: 'done', proof }),
      (error: Error) => {
        if (running.current !== control) return;
        setStage(error instanceof Stopped ? { state: 'stopped' } : { state: 'failed', message: error.message });
      },
    );
    return () => {
      running.current = null;
      control.abort();
    };
  }, [registrationId, start, returned, entries, attempt]);

  const retry = useCallback(() => setAttempt((n) => n + 1), []);
  const stop = useCallback(() => running.current?.abort(), []);
  // A proof of another period is none of this one, not even for a moment.
  const stage = reached.key === key ? reached.stage : RUNNING;
  return stage.state === 'running' ? { ...stage, retry, stop } : { ...stage, retry };
}
