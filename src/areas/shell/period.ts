'use client';

import { create } from 'zustand';
import type { IsoDate } from '@/core/kernel/date';

interface Picked {
  /** First day of the picked period; null for the current one. */
  readonly start: IsoDate | null;
  readonly pick: (start: IsoDate) => void;
  /** Id of the picked registration; empty for the first of the book. */
  readonly registrationId: string;
  /** Another registration begins with its current period. */
  readonly pickRegistration: (id: string) => void;
}

/** The period that everything on the desk speaks of. */
export const usePicked = create<Picked>()((set) => ({
  start: null,
  pick: (start) => set({ start }),
  registrationId: '',
  pickRegistration: (registrationId) => set({ registrationId, start: null }),
}));
