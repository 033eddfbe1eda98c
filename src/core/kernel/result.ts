/**
 * The kernel's entrance for outcomes. Any room may use it.
 *
 * A refusal is a value, never an exception: it crosses workers and transactions unchanged and a
 * screen words it at the field `path` points to.
 */
export interface Refusal {
  /** What went wrong, as a stable word for programs and wording tables. */
  readonly code: RefusalCode;
  /** Where: a path such as `lines[0].quantity`; empty for the whole. */
  readonly path: string;
  /** What would have been accepted, in plain words. */
  readonly expected?: string;
  /** What was found, already shortened for display. */
  readonly found?: string;
}

export type RefusalCode =
  | 'invalid'
  | 'missing'
  | 'unknown'
  | 'not-found'
  | 'duplicate'
  | 'stale'
  | 'already-issued'
  | 'already-credited'
  | 'already-filed'
  | 'not-ended'
  | 'earlier-open'
  | 'closed-period'
  | 'before-registration'
  | 'check-failed'
  | 'over-allocated'
  | 'over-credited'
  | 'overrun'
  | 'settled'
  | 'sent'
  | 'sent-before'
  | 'on-its-way'
  | 'replaced'
  | 'billed'
  | 'unbalanced'
  | 'unexplained'
  | 'in-use'
  | 'rate-changed'
  | 'unusual'
  | 'before-book'
  | 'number-order'
  | 'begun'
  | 'circle'
  | 'book-exists'
  | 'no-book'
  | 'damaged'
  | 'foreign'
  | 'too-new'
  | 'overlap'
  | 'too-large'
  | 'storage-full'
  | 'storage-failed'
  | 'newer-book'
  | 'fault';

export type Result<T> =
  | { readonly ok: true; readonly value: T }
  | { readonly ok: false; readonly refusals: readonly Refusal[] };

export function accept<T>(value: T): Result<T> {
  return { ok: true, value };
}

export function refuse(...refusals: readonly Refusal[]): { ok: false; refusals: readonly Refusal[] } {
  return { ok: false, refusals };
}

/** Shortens a foreign value so that it can stand in a message. */
export function shown(value: unknown): string {
  const text = typeof value === 'string' ? value : (JSON.stringify(value) ?? String(value));
  return text.length > 40 ? `${text.slice(0, 39)}…` : text;
}
