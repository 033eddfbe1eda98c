import { useSyncExternalStore } from 'react';

let going = 0;
const told = new Set<() => void>();

function change(by: 1 | -1): void {
  going += by;
  for (const tell of told) tell();
}

/** Says that long work has begun; whoever does it calls what it gets once it has ended. */
export function beginLongWork(): () => void {
  change(1);
  return () => change(-1);
}

function subscribe(tell: () => void): () => void {
  told.add(tell);
  return () => void told.delete(tell);
}

/** Whether long work that may write a thousand times goes on in this window. */
export function useLongWork(): boolean {
  return useSyncExternalStore(
    subscribe,
    () => going > 0,
    () => false,
  );
}
