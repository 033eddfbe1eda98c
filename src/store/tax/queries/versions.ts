import type { IsoDate } from '@/core/kernel/date';
import { periodIdOf } from '@/core/returns/calendar';
import type { ReopenedFiling } from '@/core/returns/return';
import type { BookDb } from '../../schema';

/** Returns of a period that were filed and opened again, oldest first. */
export async function versionsOf(
  db: BookDb,
  registrationId: string,
  start: IsoDate,
): Promise<readonly ReopenedFiling[]> {
  const versions = await db.reopenedFilings.where('periodId').equals(periodIdOf(registrationId, start)).toArray();
  return versions.sort((a, b) => (a.at < b.at ? -1 : 1));
}
