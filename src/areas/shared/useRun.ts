'use client';

import { useRef, useState } from 'react';
import { Stopped } from '@/workers/client';
import { beginLongWork } from '../shell/longWork';

/** How far long work is. */
export interface Doing {
  readonly done: number;
  /** 0 while it is not known how much there is to do. */
  readonly of: number;
}

/** What the work tells of itself. */
export interface Running {
  readonly signal: AbortSignal;
  readonly tell: (doing: Doing) => void;
}

export interface Run {
  /** Null while nothing is done. */
  readonly doing: Doing | null;
  /** What came of it, in words; '' before. */
  readonly said: string;
  readonly stop: () => void;
  /** Does one piece of work, which gives what came of it in words. `ended` words its being stopped, or its failing. */
  readonly start: (
    work: (running: Running) => Promise<string>,
    ended: (fault: Error | null) => string,
  ) => Promise<void>;
}

/** Milliseconds between two words on how far it is: each has the page drawn again. */
const TOLD_EVERY = 150;

/** Long work that shows how far it is and can be stopped. */
export function useRun(): Run {
  const [doing, setDoing] = useState<Doing | null>(null);
  const [said, setSaid] = useState('');
  const control = useRef<AbortController | null>(null);
  const start: Run['start'] = async (work, ended) => {
    const mine = new AbortController();
    const end = beginLongWork();
    control.current = mine;
    setSaid('');
    setDoing({ done: 0, of: 0 });
    try {
      let told = 0;
      // A last word of a worker may come after its answer.
      const tell = (how: Doing) => {
        const now = performance.now();
        const isStep = how.done > 0 && how.done < how.of;
        if (control.current !== mine || (isStep && now - told < TOLD_EVERY)) return;
        told = now;
        setDoing(how);
      };
      setSaid(await work({ signal: mine.signal, tell }));
    } catch (error) {
      setSaid(ended(error instanceof Stopped ? null : (error as Error)));
    } finally {
      end();
      control.current = null;
      setDoing(null);
    }
  };
  return { doing, said, start, stop: () => control.current?.abort() };
}
