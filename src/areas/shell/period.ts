'use client';

import { create } from 'zustand';
import type { IsoDate } from '@/core/kernel/date';

interface Picked {
  /** First day of the picked period; null for the current one. */
  readonly start: IsoDate | null;
  readonly pick: (start: IsoDate) => void;
}

/** The period that everything on the desk speaks of. */
export const usePicked = create<Picked>()((set) => ({
  start: null,
  pick: (start) => set({ start }),
}));
