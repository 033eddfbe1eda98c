import type { Revaluation } from '@/core/currency/revaluation';
import type { BookDb } from '../../schema';

/** Revaluations, newest month first; those of one month in the order they were made. */
export async function revaluationsMade(db: BookDb, limit: number): Promise<readonly Revaluation[]> {
  const newest = await db.revaluations.orderBy('date').reverse().limit(limit).toArray();
  return newest.sort((a, b) => (a.date === b.date ? (a.at < b.at ? 1 : -1) : a.date < b.date ? 1 : -1));
}
