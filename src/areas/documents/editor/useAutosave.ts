'use client';

import { useCallback, useEffect, useRef } from 'react';
import { keepDraft } from '@/store/sales/actions/drafts';
import { act } from '../../shell/book';
import type { DraftStore } from './draftStore';
import { dropSideCopy, keepSideCopy } from './sideCopy';

const PAUSE = 600;

/** Keeps the draft; `even: 'unchanged'` also one in which nothing was written yet. */
export type Save = (options?: { readonly even: 'unchanged' }) => Promise<boolean>;

/**
 * Keeps the draft a moment after the last change, when the page is left, and on demand. One save
 * runs at a time. Resolves to whether all that was typed is kept. Who leaves with something that could
 * not be kept is asked first.
 */
export function useAutosave(store: DraftStore): Save {
  const running = useRef<Promise<boolean> | null>(null);

  const save: Save = useCallback(
    async (options): Promise<boolean> => {
      while (running.current !== null) await running.current;
      const { draft, dirty } = store.getState();
      if (!dirty && (draft.revision > 0 || options === undefined)) return true;
      running.current = act(keepDraft, draft).then((result) => {
        if (result.ok) {
          store.kept(draft, result.value);
          if (!store.getState().dirty) dropSideCopy(draft.id);
        } else store.setProblems(result.refusals);
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
    // A database write may not end before the page does; the copy beside it does.
    const leave = () => {
      const { draft, dirty } = store.getState();
      if (dirty) keepSideCopy(draft);
      void save();
    };
    const ask = (event: BeforeUnloadEvent) => {
      const { draft, dirty, problems } = store.getState();
      if (dirty && (!keepSideCopy(draft) || problems.length > 0)) event.preventDefault();
    };
    const stop = store.subscribe(later);
    addEventListener('pagehide', leave);
    addEventListener('beforeunload', ask);
    return () => {
      stop();
      clearTimeout(timer);
      removeEventListener('pagehide', leave);
      removeEventListener('beforeunload', ask);
      if (store.getState().problems.length === 0) void save();
    };
  }, [store, save]);

  return save;
}
