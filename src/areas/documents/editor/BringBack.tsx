import { useStore } from 'zustand';
import { KEY_MAP } from '../../shell/keyMap';
import type { DraftStore, Removed } from './draftStore';

const HEAD = /^[^\n]*/;
const nameOf = (one: Removed) => ('line' in one ? HEAD.exec(one.line.description)?.[0] : one.adjustment.text) || 'it';

/** Offers what was removed last, for as long as the draft is open. */
export function BringBack({ store, onBringBack }: { readonly store: DraftStore; readonly onBringBack: () => void }) {
  const last = useStore(store, ({ removed }) => removed.at(-1));
  if (last === undefined) return null;
  return (
    <button
      type="button"
      title={KEY_MAP.bringBack.shown}
      className="min-w-0 cursor-pointer truncate underline underline-offset-4"
      onClick={onBringBack}
    >
      Bring back {nameOf(last)}
    </button>
  );
}
