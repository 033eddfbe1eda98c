'use client';

import { onAccount } from '@/store/payments/queries/receiptFile';
import Link from '@/ui/Link';
import { Mark } from '@/ui/Mark';
import { Money } from '@/ui/Money';
import { useBook } from '../../shell/book';
import { routes } from '../../shell/routes';

/** Money of a customer that is on account, by receipt; nothing where there is none. */
export function OnAccount({ customerId }: { readonly customerId: string }) {
  const receipts = useBook((db) => onAccount(db, customerId), [customerId]) ?? [];
  if (receipts.length === 0) return null;
  return (
    <ul aria-label="On account" className="mb-3">
      {receipts.map(({ id, number, open, currency }) => (
        <li key={id}>
          <Mark kind="note" /> <Money amount={open} currency={currency} withCode /> is on account from{' '}
          <Link href={routes.receipt(id)} className="underline underline-offset-2">
            {number}
          </Link>
        </li>
      ))}
    </ul>
  );
}
