import type { Moment } from '@/core/book/changes';
import { type Refusal, type Result, refuse } from '@/core/kernel/result';
import type { BookDb } from '@/store/schema';

/** Something that falls due later, and is done while a book is open. */
export interface Job {
  /** What waits, in words: `E-invoices`. */
  readonly what: string;
  /** Cheap, as it is asked again whenever the book changes. `now` is an ISO instant. */
  readonly isDue: (db: BookDb, now: string) => Promise<boolean>;
  /**
   * Takes up a bounded part of what is due and gives how much that was, 0 for nothing. Each outcome is written before the
   * next thing is begun, so that a round which ends midway does nothing twice. Refused where the book could not be written.
   */
  readonly round: (db: BookDb, moment: () => Moment) => Promise<Result<number>>;
}

export interface Failed {
  readonly what: string;
  readonly refusals: readonly Refusal[];
}

/** Rounds of one job until nothing is due any more; why it stopped before that, or null. */
async function finish(db: BookDb, job: Job, moment: () => Moment): Promise<readonly Refusal[] | null> {
  try {
    let round: Result<number>;
    do round = await job.round(db, moment);
    while (round.ok && round.value > 0);
    return round.ok ? null : round.refusals;
  } catch (error) {
    return refuse({ code: 'fault', path: '', found: (error as Error).message }).refusals;
  }
}

/** Does all that is due, job after job; one that can not go on keeps no other one back. Gives those that could not. */
export async function runJobs(db: BookDb, jobs: readonly Job[], moment: () => Moment): Promise<readonly Failed[]> {
  const failed: Failed[] = [];
  for (const job of jobs) {
    if (!(await job.isDue(db, moment().now))) continue;
    const refusals = await finish(db, job, moment);
    if (refusals !== null) failed.push({ what: job.what, refusals });
  }
  return failed;
}
