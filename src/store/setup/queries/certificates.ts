import { addDays, type IsoDate } from '@/core/kernel/date';
import { type Certificate, WARN_DAYS } from '@/core/parties/certificate';
import type { BookDb } from '../../schema';

/** Days after its end for which a lapsed certificate is still pointed out. */
const REMEMBERED_DAYS = 60;

/** Certificates that lapse soon or have lapsed lately, soonest first, with their customer's name. */
export async function lapsingCertificates(
  db: BookDb,
  today: IsoDate,
  limit: number,
): Promise<{ readonly certificate: Certificate; readonly customer: string }[]> {
  const certificates = await db.certificates
    .where('until')
    .between(addDays(today, -REMEMBERED_DAYS), addDays(today, WARN_DAYS))
    .limit(limit)
    .toArray();
  const customers = await db.customers.bulkGet(certificates.map((certificate) => certificate.customerId));
  return certificates.map((certificate, i) => ({ certificate, customer: customers[i]?.name ?? '' }));
}
