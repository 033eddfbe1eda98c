import type { DeferralPlan } from '@/core/documents/deferralPlan';
import type { IsoDate } from '@/core/kernel/date';
import type { BookDb } from '../../schema';

/** Plans that have something to earn after a day, those that end first before the others; a page of them. */
export function plansRunning(db: BookDb, after: IsoDate, limit: number): Promise<DeferralPlan[]> {
  return db.deferrals.where('until').above(after).limit(limit).toArray();
}
