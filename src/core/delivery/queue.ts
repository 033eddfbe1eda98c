import type { Delivery } from './accessPoint';

/* What messages of every kind have in common on their way: tries that fail are made again, ever later, and the other side is
   asked what became of those that were taken. */

/** One try to bring a message to its receiver. */
export interface Try {
  /** Instant. */
  readonly at: string;
  readonly outcome: Delivery['kind'];
  /** Why not, or the reference of whoever took it. */
  readonly words: string;
}

/** A message that waits to be taken, or whose news are asked for. */
export interface OnItsWay {
  readonly tries: readonly Try[];
  /** Tries that failed since it was queued or taken up again. */
  readonly failures: number;
  /** `again` where it had been taken already. */
  readonly receipt: { readonly reference: string; readonly at: string; readonly again: boolean } | null;
  /** Taken out of the queue, or what it asked for is done. */
  readonly handled: { readonly on: string; readonly words: string } | null;
  /** Instant at which something is next done with it; empty for never. */
  readonly dueAt: string;
  /** How often news were asked for since the last ones came. */
  readonly asked: number;
}

const SECOND = 1000;
export const DAY = 86_400;
/** Seconds between tries that reached nobody; after the last one a person must look. */
const TRY_AGAIN_AFTER = [5, 30, 300, 3600, 21_600];
/** Seconds between enquiries; the last one goes on until they end. */
const ASK_AGAIN_AFTER = [2, 10, 60, 600, 3600, 21_600, DAY];

/** An instant some seconds after another. */
export function later(instant: string, seconds: number): string {
  return new Date(Date.parse(instant) + seconds * SECOND).toISOString();
}

/** When news are next asked for, after so many enquiries that brought none. */
export function askedNext(asked: number, now: string): string {
  return later(now, ASK_AGAIN_AFTER[Math.min(asked, ASK_AGAIN_AFTER.length - 1)] ?? DAY);
}

/** A message before its first try, due at once. */
export function queuedAt(now: string): OnItsWay {
  return { tries: [], failures: 0, receipt: null, handled: null, dueAt: now, asked: 0 };
}

/** What a try brought. A receipt counts even where it was taken out of the queue meanwhile: it is a fact. */
export function afterTry<Message extends OnItsWay>(before: Message, delivery: Delivery, now: string): Message {
  const words = delivery.kind === 'taken' ? delivery.reference : delivery.words;
  const tries = [...before.tries, { at: now, outcome: delivery.kind, words }];
  if (delivery.kind === 'taken') {
    const receipt = { reference: delivery.reference, at: now, again: delivery.again };
    return { ...before, tries, receipt, handled: null, dueAt: askedNext(0, now), asked: 0 };
  }
  const wait = delivery.kind === 'refused' || before.handled !== null ? undefined : TRY_AGAIN_AFTER[before.failures];
  const failures = before.failures + 1;
  return { ...before, tries, failures, dueAt: wait === undefined ? '' : later(now, wait) };
}

/** True while a receiver has it, may have it without our knowing, or is about to. */
export function mayHaveArrived({ receipt, tries, dueAt }: OnItsWay): boolean {
  return receipt !== null || dueAt !== '' || tries.some(({ outcome }) => outcome === 'unreachable');
}
