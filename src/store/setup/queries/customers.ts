import type { CustomerRow } from '@/core/book/rows';
import type { Minor } from '@/core/kernel/money';
import { NOTHING } from '@/core/kernel/money';
import type { Certificate } from '@/core/parties/certificate';
import type { BookDb } from '../../schema';

/** Certificates of a customer, in no order. */
export function certificatesOf(db: BookDb, customerId: string): Promise<Certificate[]> {
  return db.certificates.where('customerId').equals(customerId).toArray();
}

/** What a customer owes, in home currency, and the customers that belong to it. */
export async function standingOf(
  db: BookDb,
  customerId: string,
): Promise<{ readonly open: Minor; readonly children: readonly CustomerRow[] }> {
  const [balance, children] = await Promise.all([
    db.customerBalances.get(customerId),
    db.customers.where('parentId').equals(customerId).toArray(),
  ]);
  return { open: balance?.open ?? NOTHING, children };
}
