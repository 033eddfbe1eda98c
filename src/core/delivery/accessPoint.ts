import { strToU8 } from 'fflate';
import type { Endpoint } from '@/core/parties/endpoint';
import type { Answer } from './answer';

/** Whether a receiver can be reached. */
export type LookUp =
  | { readonly kind: 'takes' }
  | { readonly kind: 'unknown' }
  /** The access point does not take the question, and never will. */
  | { readonly kind: 'refused'; readonly words: string }
  /** Nobody knows: it may be asked again. */
  | { readonly kind: 'unreachable'; readonly words: string };

/** Largest message that an access point takes, in bytes of the JSON it travels in: 9 MiB. */
export const LARGEST_MESSAGE = 9 * 2 ** 20;

/** What a file takes of a message, in bytes: JSON writes some characters with a backslash. */
export const messageSize = (file: string): number => strToU8(JSON.stringify(file)).length;

/** A file on its way. */
export interface Message {
  /** Stays the same when it is tried again, so that it is never taken twice. */
  readonly id: string;
  readonly sender: Endpoint;
  readonly receiver: Endpoint;
  /** Instant of this try. */
  readonly at: string;
  /** How often it was tried before. */
  readonly tries: number;
  /** UBL. */
  readonly file: string;
}

/** What the access point says of a message. */
export type Delivery =
  /** Taken; `again` where the same message was there already. */
  | { readonly kind: 'taken'; readonly reference: string; readonly again: boolean }
  /** Never will be: something must be mended first. */
  | { readonly kind: 'refused'; readonly words: string }
  /** Nobody knows: the same message is tried again. */
  | { readonly kind: 'unreachable'; readonly words: string };

/** A message whose answers are asked for. */
export interface Asked {
  readonly id: string;
  readonly receiver: Endpoint;
  /** Of the access point's receipt. */
  readonly reference: string;
  /** Instant of the receipt. */
  readonly takenAt: string;
}

/** The way to other businesses. Nothing here throws: what fails is an outcome. */
export interface AccessPoint {
  readonly lookUp: (receiver: Endpoint) => Promise<LookUp>;
  readonly send: (message: Message) => Promise<Delivery>;
  /** All answers given until `now`, by the id of the message; null where nobody could be asked. */
  readonly answers: (
    asked: readonly Asked[],
    now: string,
  ) => Promise<Readonly<Record<string, readonly Answer[]>> | null>;
}
