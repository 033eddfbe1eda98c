'use client';

import { useCallback, useEffect, useRef } from 'react';
import { keepDraft } from '@/store/actions/drafts';
import { act } from '../../shell/book';
import type { DraftStore } from './draftStore';

const PAUSE = 600;

/** Keeps the draft; `even: 'unchanged'` also one in which nothing was written yet. */
export type Save = (options?: { readonly even: 'unchanged' }) => Promise<boolean>;

/**
 * Keeps the draft a moment after the last change, when the page is left, and on demand. One save
 * runs at a time. Resolves to whether all that was typed is kept.
 */
export function useAutosave(store: DraftStore): Save {
  const running = useRef<Promise<boolean> | null>(null);

  const save: Save = useCallback(
    async (options): Promise<boolean> => {
      while (running.current !== null) await running.current;
      const { draft, dirty } = store.getState();
      if (!dirty && (draft.revision > 0 || options === undefined)) return true;
      running.current = act(keepDraft, draft).then((result) => {
        if (result.ok) store.kept(draft, result.value);
        else store.setProblems(result.refusals);
        return result.ok;
      });
      try {
        return await running.current;
      } finally {
        running.current = null;
      }
    },
    [store],
  );

  useEffect(() => {
    let timer: ReturnType<typeof setTimeout> | undefined;
    const later = () => {
      clearTimeout(timer);
      const { dirty, problems } = store.getState();
      if (dirty && problems.length === 0) timer = setTimeout(() => void save(), PAUSE);
    };
    const leave = () => void save();
    const stop = store.subscribe(later);
    addEventListener('pagehide', leave);
    return () => {
      stop();
      clearTimeout(timer);
      removeEventListener('pagehide', leave);
      if (store.getState().problems.length === 0) void save();
    };
  }, [store, save]);

  return save;
}
