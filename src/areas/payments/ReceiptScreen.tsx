'use client';

import { useState } from 'react';
import { writeDate } from '@/core/kernel/date';
import type { Allocation } from '@/core/settlement/allocation';
import { methodsOf } from '@/core/settlement/receipt';
import { receiptFile } from '@/store/payments/queries/receiptFile';
import { Button } from '@/ui/Button';
import Link from '@/ui/Link';
import { Money } from '@/ui/Money';
import { Empty, Margin, Sheet, SheetTitle } from '@/ui/Page';
import { Ruled } from '@/ui/Ruled';
import { CreditActions } from '../shared/settlement/CreditActions';
import { UndoDialog } from '../shared/settlement/UndoDialog';
import { useBook } from '../shell/book';
import { EntriesNote } from '../shell/EntriesNote';
import { routes } from '../shell/routes';

const LINK = 'underline decoration-rule underline-offset-4';

/** A recorded receipt: what it settles, what it settled once, and what of it is on account. */
export function ReceiptScreen({ id }: { readonly id: string }) {
  const found = useBook((db) => receiptFile(db, id), [id]);
  const [undoing, setUndoing] = useState<Allocation | null>(null);
  if (!found) return <Sheet label="Receipt">{found === null && <Empty>This book holds no such receipt.</Empty>}</Sheet>;
  const { receipt, allocations, lines } = found;
  const { number, customerId, currency, open } = receipt;
  return (
    <>
      <Sheet label={`Receipt ${number}`}>
        <SheetTitle aside={`${methodsOf(receipt)} · ${writeDate(receipt.date)}`}>Receipt {number}</SheetTitle>
        <p className="mb-4">
          <Link href={routes.record('customers', customerId)} className={LINK}>
            {receipt.customerName}
          </Link>
          {receipt.reference && <span className="text-soft"> · {receipt.reference}</span>}
        </p>
        <Ruled
          caption="What it settles"
          rows={allocations}
          keyOf={(allocation) => allocation.id}
          columns={[
            {
              head: 'Document',
              cell: (a) =>
                a.debtKind === 'refund' ? (
                  a.debtNumber
                ) : (
                  <Link href={routes.document(a.debtId)} className={LINK}>
                    {a.debtNumber}
                  </Link>
                ),
            },
            { head: 'Day', width: '120px', cell: (a) => writeDate(a.date) },
            {
              head: '',
              cell: (a) =>
                a.debtKind === 'refund' ? (
                  <span className="text-soft">given back</span>
                ) : a.undone === null ? (
                  <Button
                    weight="quiet"
                    className="-my-1"
                    aria-label={`Undo ${a.debtNumber}`}
                    onClick={() => setUndoing(a)}
                  >
                    Undo…
                  </Button>
                ) : (
                  <span className="text-soft">⊘ undone {writeDate(a.undone.on)}</span>
                ),
            },
            {
              head: 'Settled',
              align: 'right',
              cell: (a) =>
                a.undone === null ? (
                  <Money amount={a.amount} currency={currency} />
                ) : (
                  <s className="text-soft">
                    <Money amount={a.amount} currency={currency} />
                  </s>
                ),
            },
          ]}
          sums={['Received', '', '', <Money key="sum" amount={receipt.amount} currency={currency} withCode />]}
        />
        {open > 0n && (
          <div className="mt-3 flex items-center justify-between px-1.5">
            <CreditActions credit={{ id, number, customerId, currency, left: open }} />
            <span>
              On account <Money amount={open} currency={currency} withCode className="ml-2" />
            </span>
          </div>
        )}
        {undoing !== null && <UndoDialog allocation={undoing} onClose={() => setUndoing(null)} />}
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
