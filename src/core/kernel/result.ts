import type { Currency } from './currency';
import type { IsoDate } from './date';
import type { Minor } from './money';
import type { Wanted } from './wanted';

/** What each refusal says besides where it stands; `found` is shortened for display. `core/wording/refusals.ts` words them. */
export interface RefusalFacts {
  invalid: { readonly wanted: Wanted; readonly found?: string };
  missing: { readonly wanted: Wanted };
  unknown: { readonly wanted: Wanted; readonly found?: string };
  /** No tax could be decided on; Workings say why. */
  undecided: { readonly why: string };
  /** Data for a command that break its form, in the terms of its description. */
  malformed: { readonly must: string; readonly found?: string };
  'not-found': { readonly what?: 'invoice-of-customer' | 'registration' };
  duplicate: { readonly found: string };
  stale: Nothing;
  'already-issued': Nothing;
  'already-credited': { readonly by: readonly string[] };
  'already-filed': Nothing;
  'not-ended': { readonly period: string; readonly until: IsoDate };
  'not-filed': { readonly period: string };
  /** Only the newest filed period is opened again. */
  'later-filed': { readonly until: IsoDate };
  'locked-day': { readonly day: IsoDate; readonly until: IsoDate };
  'locked-by-year': { readonly until: IsoDate };
  'period-filed': { readonly until: IsoDate };
  'over-paid': { readonly left: Minor; readonly currency: Currency; readonly period: string };
  'earlier-open': { readonly period: string };
  'closed-period': { readonly day: IsoDate; readonly filedUntil: IsoDate };
  /** As above, where the way out is another document. */
  'closed-document': { readonly day: IsoDate };
  'before-registration': { readonly day: IsoDate; readonly from: IsoDate };
  'not-in-force': { readonly registration: string; readonly day: IsoDate };
  /** A check of the document that blocks it; its own words. */
  'check-failed': { readonly finding: string };
  /** A file of statements whose lines are all there. */
  'nothing-new': Nothing;
  /** A bank line that nothing is left of, or that is not matched. */
  matched: Nothing;
  'not-matched': Nothing;
  'over-matched': { readonly left: Minor };
  /** More of an advance invoice is taken off than is left of it. */
  'over-taken': { readonly number: string; readonly left: Minor; readonly currency: Currency };
  'over-allocated': { readonly number: string };
  /** It came back unpaid. */
  dishonoured: { readonly number: string };
  /** What of a receipt, a withheld amount or a bank statement was used so that it can't be taken back: its refund, certificate, claim or match. */
  'used-since': { readonly by: 'refunded' | 'certified' | 'claimed' | 'matched' };
  /** More than is withheld, certified or payable. */
  'over-claimed': {
    readonly left: Minor;
    readonly currency: Currency;
    readonly of: 'withheld' | 'certified' | 'payable';
  };
  'no-relief': { readonly why: 'not-yet-due' | 'registration' };
  'over-credited': { readonly left?: Minor; readonly currency?: Currency };
  overrun: { readonly quote: string; readonly lines: readonly string[] };
  'wrong-kind': { readonly number: string; readonly takes: 'invoice' | 'quote' | 'posted' | 'cancellable' };
  settled: { readonly by: 'cancelled' | 'credited' | 'paid' | 'written-off' };
  sent: { readonly on: IsoDate };
  'sent-before': { readonly on: IsoDate };
  'on-its-way': Nothing;
  unsendable: { readonly number: string; readonly why: Unsendable };
  replaced: { readonly by: string };
  billed: Nothing;
  unbalanced: Nothing;
  unexplained: Nothing;
  /** `keep` is the value documents rest on, a day of the last of them, or the name of what stays. */
  'in-use': { readonly keep: string };
  /** `by` names one thing that uses it. */
  used: { readonly by: string };
  'rate-changed': { readonly tax: string; readonly held: string; readonly now: string };
  unusual: { readonly day: IsoDate; readonly why: Unusual };
  'before-book': { readonly day: IsoDate; readonly began: IsoDate };
  'number-order': { readonly day: IsoDate; readonly last: IsoDate };
  begun: { readonly from: IsoDate; readonly rate: string };
  circle: Nothing;
  'book-exists': Nothing;
  'no-book': Nothing;
  /** `expected` names the form of what was to be there. */
  damaged: { readonly expected: string; readonly found?: string };
  foreign: Nothing;
  'too-new': { readonly version: number; readonly reads: number };
  overlap: { readonly ours: string; readonly theirs: string };
  'too-large': { readonly wanted: Wanted };
  unreadable: { readonly file: string };
  /** It was there, and could not be read all the same. */
  unread: { readonly why: string };
  'storage-full': Nothing;
  'storage-failed': { readonly found: string };
  'newer-book': Nothing;
  /** The person stopped it. */
  stopped: Nothing;
  fault: { readonly found: string };
}

type Nothing = Readonly<Record<never, never>>;

/** Why a day is asked about: days ahead or back, or a document issued after it. */
export type Unusual =
  | { readonly ahead: number }
  | { readonly back: number }
  | { readonly before: string; readonly issued: IsoDate }
  /** Of a discount for paying early. */
  | { readonly discount: 'late' | 'too-high' | 'not-offered'; readonly number: string };

/** Why a document can't go out as an e-invoice. */
export type Unsendable =
  | 'kind'
  | 'cancelled'
  | 'waits'
  | 'failed'
  | 'rejected'
  | 'put-aside'
  | { readonly addressless: string }
  | { readonly sent: IsoDate }
  | { readonly unsound: string; readonly rule: string };

export type RefusalCode = keyof RefusalFacts;

/**
 * A refusal is a value, never an exception: it crosses workers and transactions unchanged and a
 * screen words it at the field that `path` points to, such as `lines[0].quantity`; empty for the whole.
 */
export type Refusal = {
  [Code in RefusalCode]: { readonly code: Code; readonly path: string } & RefusalFacts[Code];
}[RefusalCode];

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
