import { flushSync } from 'react-dom';
import { useKey } from '../../shell/useKey';
import type { DraftStore } from './draftStore';
import { focusField } from './moveOn';

/**
 * Puts what was removed last where it stood, and the focus into it. Ctrl+Z does it right after a removal; once something
 * was typed the key takes that back, as in any field.
 */
export function useBringBack(store: DraftStore): () => void {
  const bringBack = () => {
    const back = flushSync(() => store.bringBack());
    if (back === null) return;
    const { lines, adjustments } = store.getState().draft;
    const path =
      'line' in back
        ? `lines[${lines.indexOf(back.line)}].description`
        : `adjustments[${adjustments.indexOf(back.adjustment)}].amount`;
    focusField(path);
  };
  useKey('bringBack', bringBack, () => store.getState().justRemoved);
  return bringBack;
}
