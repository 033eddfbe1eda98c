import { useStore } from 'zustand';
import { TextButton } from '@/ui/TextButton';
import { KEY_MAP } from '../../shell/keyMap';
import type { DraftStore, Removed } from './draftStore';

const HEAD = /^[^\n]*/;
const nameOf = (one: Removed) => ('line' in one ? HEAD.exec(one.line.description)?.[0] : one.adjustment.text) || 'it';

/** Offers what was removed last, for as long as the draft is open. */
export function BringBack({ store, onBringBack }: { readonly store: DraftStore; readonly onBringBack: () => void }) {
  const last = useStore(store, ({ removed }) => removed.at(-1));
  if (last === undefined) return null;
  return (
    <TextButton title={KEY_MAP.bringBack.shown} className="min-w-0 truncate" onClick={onBringBack}>
      Bring back {nameOf(last)}
    </TextButton>
  );
}
