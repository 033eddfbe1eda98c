'use client';

import { useRef, useState } from 'react';
import { toast } from 'sonner';
import type { MatchTarget } from '@/core/bank/suggest';
import { wordRefusals } from '@/core/wording/refusals';
import { acceptMatch, undoMatch } from '@/store/bank/actions/matching';
import { act } from '../shell/book';
import { useKey } from '../shell/useKey';

/** A match that is asked about before it is made. */
interface Unusual {
  readonly lineId: string;
  readonly target: MatchTarget;
  readonly words: string;
}

/** Accepts matches, asks where a receipt would be unusual, and undoes the last one by its key. */
export function useMatching() {
  const [unusual, setUnusual] = useState<Unusual | null>(null);
  const [wrong, setWrong] = useState('');
  const made = useRef<string[]>([]);
  const accept = async (lineId: string, target: MatchTarget, agreed = false) => {
    setWrong('');
    setUnusual(null);
    const result = await act(acceptMatch, { lineId, target, agreed });
    if (result.ok) made.current.push(lineId);
    else if (result.refusals.every(({ code }) => code === 'unusual'))
      setUnusual({ lineId, target, words: wordRefusals(result.refusals) });
    else setWrong(wordRefusals(result.refusals));
  };
  const undo = async (lineId: string) => {
    const result = await act(undoMatch, { lineId });
    setWrong(result.ok ? '' : wordRefusals(result.refusals));
    if (!result.ok) return;
    made.current = made.current.filter((id) => id !== lineId);
    toast('The match is undone');
  };
  useKey(
    'bringBack',
    () => {
      const last = made.current.at(-1);
      if (last !== undefined) void undo(last);
    },
    () => made.current.length > 0,
  );
  return { wrong, unusual, accept, undo, leaveUnusual: () => setUnusual(null) };
}
