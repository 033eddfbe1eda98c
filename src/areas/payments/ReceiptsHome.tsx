'use client';

import { useRouter } from 'next/navigation';
import { writeDate } from '@/core/kernel/date';
import { overdueInvoices } from '@/store/sales/queries/documents';
import { Button } from '@/ui/Button';
import Link from '@/ui/Link';
import { Money } from '@/ui/Money';
import { Empty, Sheet, SheetTitle } from '@/ui/Page';
import { ListTable } from '../shared/ListTable';
import { today, useBook } from '../shell/book';
import { KEY_MAP } from '../shell/keyMap';
import { routes } from '../shell/routes';

const MOST = 50;

/** Receipts without one picked: what is overdue, each with the way to its receipt. */
export function ReceiptsHome() {
  const router = useRouter();
  const overdue = useBook((db) => overdueInvoices(db, today(), MOST));
  return (
    <Sheet label="Receipts">
      <SheetTitle
        aside={
          <Button weight="main" title={KEY_MAP.write.shown} onClick={() => router.push(routes.newReceipt)}>
            Record a receipt
          </Button>
        }
      >
        Receipts
      </SheetTitle>
      {overdue?.length === 0 && <Empty>Nothing is overdue. Choose a receipt on the left, or record one.</Empty>}
      {overdue !== undefined && overdue.length > 0 && (
        <>
          <h2 className="mb-1 font-semibold font-serif">Overdue{overdue.length === MOST && `, the first ${MOST}`}</h2>
          <ListTable
            caption="Overdue"
            rows={overdue}
            keyOf={({ id }) => id}
            columns={[
              {
                head: 'Document',
                value: (row) => row.number,
                cell: (row) => (
                  <Link href={routes.document(row.id)} className="underline decoration-rule underline-offset-4">
                    {row.number}
                  </Link>
                ),
              },
              { head: 'Customer', value: (row) => row.customerName, cell: (row) => row.customerName },
              { head: 'Due', value: (row) => row.dueDate, cell: (row) => writeDate(row.dueDate) },
              {
                head: 'Open',
                align: 'right',
                value: (row) => row.open,
                cell: (row) => <Money amount={row.open} currency={row.content.currency} withCode />,
              },
              {
                head: 'Receipt',
                cell: (row) => (
                  <Link href={routes.receiptFor(row.id)} className="underline decoration-rule underline-offset-4">
                    Record a receipt<span className="sr-only"> for {row.number}</span>
                  </Link>
                ),
              },
            ]}
          />
        </>
      )}
    </Sheet>
  );
}
