import { momentOn, newBook } from 'tests/book';
import { accept, type Result, refuse } from '@/core/kernel/result';
import type { BookDb } from '@/store/schema';
import { type Job, runJobs } from './runJobs';

const moment = () => momentOn('2026-01-15');

/** A job with so much to do, two at a time; what it did is noted. */
function jobOf(what: string, waiting: number, done: string[], round?: () => Promise<Result<number>>): Job {
  let left = waiting;
  return {
    what,
    isDue: async () => left > 0,
    round:
      round ??
      (async () => {
        const now = Math.min(2, left);
        left -= now;
        done.push(`${what} ${now}`);
        return accept(now);
      }),
  };
}

describe('what is due', () => {
  let db: BookDb;
  beforeAll(async () => {
    db = await newBook();
  });

  test('is done to the end, job after job, and what is not due is left alone', async () => {
    const done: string[] = [];
    const jobs = [jobOf('mail', 3, done), jobOf('nothing', 0, done), jobOf('e-invoices', 1, done)];
    expect(await runJobs(db, jobs, moment)).toEqual([]);
    expect(done).toEqual(['mail 2', 'mail 1', 'mail 0', 'e-invoices 1', 'e-invoices 0']);
    expect(await runJobs(db, jobs, moment)).toEqual([]);
    expect(done).toHaveLength(5);
  });

  test('goes on behind a job that is refused, and behind one that meets a fault', async () => {
    const done: string[] = [];
    const full = async () => refuse({ code: 'storage-full', path: '' });
    const broken = () => Promise.reject(new RangeError('wrong'));
    const jobs = [jobOf('mail', 1, done, full), jobOf('runs', 1, done, broken), jobOf('e-invoices', 1, done)];
    expect(await runJobs(db, jobs, moment)).toEqual([
      { what: 'mail', refusals: [{ code: 'storage-full', path: '' }] },
      { what: 'runs', refusals: [{ code: 'fault', path: '', found: 'wrong' }] },
    ]);
    expect(done).toEqual(['e-invoices 1', 'e-invoices 0']);
  });
});
