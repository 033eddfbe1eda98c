'use client';

import { writeDate } from '@/core/kernel/date';
import { linesOfEntry } from '@/store/ledger/queries/ledger';
import { recordOf } from '@/store/records';
import Link from '@/ui/Link';
import { Money } from '@/ui/Money';
import { Empty, Margin, Sheet, SheetTitle } from '@/ui/Page';
import { Ruled } from '@/ui/Ruled';
import { useBook } from '../shell/book';
import { EntriesNote } from '../shell/EntriesNote';
import { routes } from '../shell/routes';

/** A recorded receipt and what it settled. */
export function ReceiptScreen({ id }: { readonly id: string }) {
  const found = useBook(
    async (db) => {
      const receipt = await recordOf(db, 'receipts', id);
      return receipt === null ? null : { receipt, lines: await linesOfEntry(db, receipt.entryId) };
    },
    [id],
  );
  if (!found) return <Sheet label="Receipt">{found === null && <Empty>This book holds no such receipt.</Empty>}</Sheet>;
  const { receipt, lines } = found;
  return (
    <>
      <Sheet label={`Receipt ${receipt.number}`}>
        <SheetTitle aside={`${receipt.method} · ${writeDate(receipt.date)}`}>Receipt {receipt.number}</SheetTitle>
        <p className="mb-4">
          <Link
            href={routes.record('customers', receipt.customerId)}
            className="underline decoration-rule underline-offset-4"
          >
            {receipt.customerName}
          </Link>
          {receipt.reference && <span className="text-soft"> · {receipt.reference}</span>}
        </p>
        <Ruled
          caption="Invoices settled"
          rows={receipt.allocations}
          keyOf={(allocation) => allocation.documentId}
          columns={[
            {
              head: 'Invoice',
              cell: (a) => (
                <Link href={routes.document(a.documentId)} className="underline decoration-rule underline-offset-4">
                  {a.number}
                </Link>
              ),
            },
            { head: 'Settled', align: 'right', cell: (a) => <Money amount={a.amount} currency={receipt.currency} /> },
          ]}
          sums={['Received', <Money key="sum" amount={receipt.amount} currency={receipt.currency} withCode />]}
        />
      </Sheet>
      <Margin>
        <EntriesNote sides={lines}>
          <Link href={routes.entry(receipt.entryId)} className="mt-1 block text-sm underline underline-offset-2">
            Journal
          </Link>
        </EntriesNote>
      </Margin>
    </>
  );
}
