'use client';

import { create } from 'zustand';
import { createJSONStorage, persist } from 'zustand/middleware';
import type { IsoDate } from '@/core/kernel/date';
import type { PeriodState } from '@/store/tax/queries/periods';

interface Picked {
  /** First day of the picked period; null for the current one. */
  readonly start: IsoDate | null;
  readonly pick: (start: IsoDate) => void;
  /** Id of the picked registration; empty for the first of the book. */
  readonly registrationId: string;
  /** Another registration begins with its current period. */
  readonly pickRegistration: (id: string) => void;
}

/** The period that everything on the desk speaks of. Kept by the browser, for reloads and new tabs. */
export const usePicked = create<Picked>()(
  persist(
    (set) => ({
      start: null,
      pick: (start) => set({ start }),
      registrationId: '',
      pickRegistration: (registrationId) => set({ registrationId, start: null }),
    }),
    {
      name: 'able-picked',
      storage: createJSONStorage(() => localStorage),
      partialize: ({ start, registrationId }) => ({ start, registrationId }),
    },
  ),
);

/** States of a period, in the same words wherever they stand. */
export const PERIOD_WORDS: Readonly<Record<PeriodState, string>> = {
  open: 'open',
  closing: 'to file',
  filed: 'filed',
  differing: 'differences',
};
