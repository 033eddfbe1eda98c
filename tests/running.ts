import type fc from 'fast-check';
import type { TaxPeriod } from '@/core/returns/return';
import type { BookDb } from '@/store/schema';

/** What a random sequence of actions is about: the book, the day that moves on, what was filed. */
export interface Running {
  readonly db: BookDb;
  readonly filed: Map<string, TaxPeriod>;
  today: string;
}

/** One action of a sequence; the model knows only whether there is anything to act on. */
export type Command = fc.AsyncCommand<{ issued: number }, Running>;

/** One of several, by a number of any size. */
export function picked<T>(all: readonly T[], pick: number): T | undefined {
  return all[pick % Math.max(1, all.length)];
}
