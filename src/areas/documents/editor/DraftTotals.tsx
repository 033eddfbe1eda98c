'use client';

import { useStore } from 'zustand';
import type { Draft } from '@/core/documents/draft';
import type { Preview } from '@/core/documents/preview';
import { Totals } from '../Totals';
import type { DraftStore } from './draftStore';

interface DraftTotalsProps {
  readonly store: DraftStore;
  readonly draft: Draft;
  readonly shown: Preview;
}

/** Totals of the draft; each figure opens its workings in the margin. */
export function DraftTotals({ store, draft, shown }: DraftTotalsProps) {
  const focus = useStore(store, (state) => state.focus);
  return (
    <Totals
      figures={shown.figures}
      currency={shown.currency}
      withholding={shown.withholding}
      taxes={shown.taxes}
      adjustmentName={(id) => draft.adjustments.find((a) => a.id === id)?.text || 'Discount or charge'}
      home={shown.home}
      focus={focus?.lineId === '' ? focus.field : ''}
      onFocus={(key) => store.setFocus({ lineId: '', field: key })}
    />
  );
}
