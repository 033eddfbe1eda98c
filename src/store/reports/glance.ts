import { type IsoDate, isoDate, monthOf } from '@/core/kernel/date';
import { type Glance, glanceOf } from '@/core/reports/glance';
import type { BookDb } from '../schema';
import { incomeCashMaterial } from './ledgers';
import { expectedCashMaterial } from './receivables';
import { authoritiesMaterial } from './tax';

/** What matters on a day: what is owed, expected, to be paid, earned and received. */
export async function glance(db: BookDb, on: IsoDate): Promise<Glance> {
  const [expected, authorities, month] = await Promise.all([
    expectedCashMaterial(db, on),
    authoritiesMaterial(db, on),
    incomeCashMaterial(db, { from: isoDate(`${monthOf(on)}-01`), until: on }),
  ]);
  return glanceOf({ on, expected, authorities, month });
}
