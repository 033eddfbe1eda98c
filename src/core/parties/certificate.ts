import * as yup from 'yup';
import { addDays, type IsoDate, isIsoDate } from '@/core/kernel/date';
import { dateText, neededText } from '@/core/kernel/validate';
import { wanted } from '@/core/kernel/wanted';
import type { Relief, ReliefIn } from '@/core/tax/resolve';
import type { Customer } from './customer';

/** A file kept beside a record. */
export interface AttachedFile {
  readonly name: string;
  /** Media type: `application/pdf`. */
  readonly type: string;
  readonly base64: string;
}

/** A paper by which an authority lets a customer buy without tax. */
export interface Certificate {
  readonly id: string;
  readonly customerId: string;
  readonly jurisdictionId: string;
  readonly number: string;
  /** Why no tax is charged, as it prints: `research institution`. */
  readonly reason: string;
  readonly from: IsoDate;
  /** Last day; empty when it does not lapse. */
  readonly until: IsoDate | '';
  readonly file: AttachedFile | null;
}

/** Largest file beside a certificate: 2 MiB, as base64. */
const LARGEST_FILE = Math.ceil((2 * 2 ** 20 * 4) / 3) + 4;

export const certificateSchema = yup
  .object({
    id: neededText('give-id'),
    customerId: neededText('give-customer'),
    jurisdictionId: neededText('give-the-jurisdiction'),
    number: neededText('give-number-of-certificate', 60),
    reason: neededText('give-reason-of-exemption', 120),
    from: dateText('give-first-day'),
    until: yup
      .string()
      .defined()
      .test('until', wanted('last-day-or-nothing'), (v) => v === '' || isIsoDate(v)),
    file: yup
      .object({
        name: neededText('give-a-name'),
        type: yup.string().defined(),
        base64: yup.string().defined().max(LARGEST_FILE, wanted('file-of-2-mib')),
      })
      .nullable()
      .defined(),
  })
  .test('order', wanted('end-not-before-begin'), function order(c) {
    return c.until === '' || c.from <= c.until || this.createError({ path: 'until' });
  });

/** True while the certificate is in force. */
export function isValidOn(certificate: Pick<Certificate, 'from' | 'until'>, day: IsoDate): boolean {
  return certificate.from <= day && (certificate.until === '' || day <= certificate.until);
}

/** Days before its end from which a certificate is pointed out. */
export const WARN_DAYS = 45;

/** Whether a certificate is in force, soon ends, or has ended. `upcoming` begins later. */
export function certificateState(
  certificate: Pick<Certificate, 'from' | 'until'>,
  day: IsoDate,
): 'valid' | 'lapses-soon' | 'lapsed' | 'upcoming' {
  if (day < certificate.from) return 'upcoming';
  if (certificate.until === '') return 'valid';
  if (certificate.until < day) return 'lapsed';
  return certificate.until < addDays(day, WARN_DAYS) ? 'lapses-soon' : 'valid';
}

/**
 * Where a customer is charged nothing on a day: where it is not liable, or holds a certificate in
 * force. `certificates` are those of the customer.
 */
export function reliefOf(
  customer: Pick<Customer, 'id' | 'notLiableIn'> | null,
  certificates: readonly Certificate[],
  day: IsoDate,
): ReliefIn {
  if (customer === null) return () => null;
  const reliefs = new Map<string, Relief>();
  for (const certificate of certificates)
    if (certificate.customerId === customer.id && isValidOn(certificate, day))
      reliefs.set(certificate.jurisdictionId, { certificate: certificate.number, reason: certificate.reason });
  for (const id of customer.notLiableIn)
    if (!reliefs.has(id)) reliefs.set(id, { certificate: '', reason: 'the customer is not taxed there' });
  return (jurisdictionId) => reliefs.get(jurisdictionId) ?? null;
}
