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

/** Actions that follow on each other, as one. */
export class InTurn implements Command {
  constructor(private readonly actions: readonly Command[]) {}
  check = () => true;
  async run(model: { issued: number }, real: Running) {
    for (const action of this.actions) await action.run(model, real);
  }
  toString = () => this.actions.map(String).join(' then ');
}
