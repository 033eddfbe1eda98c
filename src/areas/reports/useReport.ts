'use client';

import { useEffect, useRef, useState } from 'react';
import type { Report } from '@/core/reports/report';
import type { ReportSpan } from '@/core/reports/span';
import { countEntries } from '@/store/ledger/queries/ledger';
import { reportInWorker, Stopped } from '@/workers/client';
import { useBook } from '../shell/book';

/** A report that is made in a worker: what there is of it, and how to stop it or begin again. */
export interface MadeReport {
  /** The last one that was made for these days, or null. */
  readonly report: Report | null;
  readonly running: boolean;
  /** Why there is none; empty for no fault. */
  readonly fault: string;
  readonly stop: () => void;
  readonly again: () => void;
}

interface Reached {
  readonly of: string;
  readonly report: Report | null;
  readonly fault: string;
}

/** Makes a report for its days and what is chosen, and again when something was posted; null days make none. */
export function useReport(name: string, span: ReportSpan | null, chosen: string): MadeReport {
  const { from = '', until = '' } = span ?? {};
  const of = `${name}|${from}|${until}|${chosen}`;
  const entries = useBook(countEntries);
  const [attempt, setAttempt] = useState(0);
  const [reached, setReached] = useState<Reached>({ of: '', report: null, fault: '' });
  const [running, setRunning] = useState(false);
  const control = useRef<AbortController | null>(null);
  useEffect(() => {
    if (from === '' || until === '' || entries === undefined) return;
    const mine = new AbortController();
    control.current = mine;
    setRunning(true);
    // `attempt` asks for it anew.
    void attempt;
    reportInWorker(name, { from, until } as ReportSpan, chosen, mine.signal)
      .then(
        (report) => control.current === mine && setReached({ of, report, fault: '' }),
        (error: unknown) => {
          if (control.current !== mine) return;
          const fault = error instanceof Stopped ? 'Stopped.' : `It could not be made: ${(error as Error).message}`;
          setReached({ of, report: null, fault });
        },
      )
      .finally(() => control.current === mine && setRunning(false));
    return () => {
      control.current = null;
      mine.abort();
    };
  }, [of, name, from, until, chosen, entries, attempt]);
  const isOf = reached.of === of;
  return {
    report: isOf ? reached.report : null,
    fault: isOf && !running ? reached.fault : '',
    running,
    stop: () => control.current?.abort(),
    again: () => setAttempt((before) => before + 1),
  };
}
