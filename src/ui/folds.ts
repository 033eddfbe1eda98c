'use client';

import { create } from 'zustand';

type Column = 'index' | 'margin';

interface Folds {
  readonly index: boolean;
  readonly margin: boolean;
  readonly fold: (column: Column, folded: boolean) => void;
}

/**
 * Widths below which a column folds by itself: three do not fit side by side, and below the second, as on a screen that is
 * zoomed to twice its size, the sheet alone does.
 */
const NARROW: Readonly<Record<Column, number>> = { index: 1180, margin: 900 };

const isNarrow = (column: Column): boolean => typeof window !== 'undefined' && window.innerWidth < NARROW[column];

/** Which columns are folded away; kept while the page lives. */
export const useFolds = create<Folds>()((set) => ({
  index: isNarrow('index'),
  margin: isNarrow('margin'),
  fold: (column, folded) => set({ [column]: folded }),
}));

// A window that is made narrower or wider, or zoomed, folds and unfolds them; in between the person decides.
if (typeof window !== 'undefined')
  for (const column of ['index', 'margin'] as const)
    matchMedia(`(max-width: ${NARROW[column] - 1}px)`).addEventListener('change', ({ matches }) =>
      useFolds.setState({ [column]: matches }),
    );
