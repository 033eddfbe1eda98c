import Dexie from 'dexie';
import { useSyncExternalStore } from 'react';

/**
 * A live query keeps all that is written anywhere until something concerns it, and compares the whole of it each time: it
 * grows and slows down while thousands of documents are issued or imported. After so many commits it is begun anew.
 */
const COMMITS = 100;

let commits = 0;
let round = 0;
const told = new Set<() => void>();

function count(): void {
  commits += 1;
  if (commits < COMMITS) return;
  commits = 0;
  round += 1;
  for (const tell of told) tell();
}

function subscribe(tell: () => void): () => void {
  if (told.size === 0) Dexie.on.storagemutated.subscribe(count);
  told.add(tell);
  return () => {
    told.delete(tell);
    if (told.size === 0) Dexie.on.storagemutated.unsubscribe(count);
  };
}

/** A number that changes when live queries are to be begun anew. */
export function useQueryRound(): number {
  return useSyncExternalStore(
    subscribe,
    () => round,
    () => 0,
  );
}
