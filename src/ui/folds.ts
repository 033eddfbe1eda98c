'use client';

import { create } from 'zustand';

type Column = 'index' | 'margin';

interface Folds {
  readonly index: boolean;
  readonly margin: boolean;
  readonly fold: (column: Column, folded: boolean) => void;
}

/** Below this width there is no room for index, sheet and margin side by side. */
const NARROW = 1180;

/** Which columns are folded away; kept while the page lives. */
export const useFolds = create<Folds>()((set) => ({
  index: typeof window !== 'undefined' && window.innerWidth < NARROW,
  margin: false,
  fold: (column, folded) => set({ [column]: folded }),
}));
