'use client';

import { usePathname, useRouter } from 'next/navigation';
import { useState } from 'react';
import { writeDay } from '@/core/kernel/date';
import { standingOf } from '@/store/payments/queries/receipts';
import { findReceipts } from '@/store/sales/queries/documents';
import Link from '@/ui/Link';
import { IndexColumn } from '@/ui/Page';
import { useOpenBook } from '../shell/BookContext';
import { today, useBook } from '../shell/book';
import { IndexList } from '../shell/IndexList';
import { KEY_MAP } from '../shell/keyMap';
import { routes } from '../shell/routes';
import { useKey } from '../shell/useKey';
import { RECEIPT_MARKS } from './receiptMark';

const PAGE = 50;

/** Receipts, newest first; typing looks through all of them. */
export function ReceiptsIndex() {
  const router = useRouter();
  const path = usePathname();
  const { currency } = useOpenBook();
  const [query, setQuery] = useState('');
  const [limit, setLimit] = useState(PAGE);
  useKey('write', () => router.push(routes.newReceipt));
  const receipts = useBook((db) => findReceipts(db, query, limit), [], [query, limit]);
  return (
    <IndexColumn title="Receipts">
      <IndexList
        entries={receipts?.map((receipt) => {
          const [kind, word] = RECEIPT_MARKS[standingOf(receipt, today())];
          return {
            id: receipt.id,
            path: routes.receipt(receipt.id),
            mark: { kind, word },
            title: receipt.number.replace(/-\d{4}-/, '-'),
            amount: receipt.amount,
            currency: receipt.currency,
            detail: receipt.customerName,
            day: writeDay(receipt.date),
          };
        })}
        currency={currency}
        current={path}
        query={query}
        onQuery={setQuery}
        findLabel="Find a receipt"
        empty={query.trim() === '' ? 'No money received yet.' : 'Nothing found. Try part of a number or name.'}
        {...((receipts?.length ?? 0) >= limit && { onMore: () => setLimit(limit + PAGE) })}
        foot={
          <span className="flex flex-col gap-1">
            <Link href={routes.newReceipt} title={KEY_MAP.write.shown} className="underline underline-offset-4">
              Record a receipt
            </Link>
            <Link href={routes.receiptList} className="underline underline-offset-4">
              All receipts
            </Link>
            <Link href={routes.bank} className="underline underline-offset-4">
              Bank
            </Link>
            <Link href={routes.customers} className="underline underline-offset-4">
              Aged receivables
            </Link>
            <Link href={routes.reminders} className="underline underline-offset-4">
              Reminders
            </Link>
            <Link href={routes.withholding} className="underline underline-offset-4">
              Withholding
            </Link>
          </span>
        }
      />
    </IndexColumn>
  );
}
