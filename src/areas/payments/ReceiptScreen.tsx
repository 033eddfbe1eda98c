'use client';

import { useState } from 'react';
import { writeDate } from '@/core/kernel/date';
import { NOTHING, total } from '@/core/kernel/money';
import type { Allocation } from '@/core/settlement/allocation';
import { isPostDated, methodsOf, type Receipt } from '@/core/settlement/receipt';
import type { Withheld } from '@/core/settlement/withholding';
import { type ReceiptFile, receiptFile } from '@/store/payments/queries/receiptFile';
import { Button } from '@/ui/Button';
import Link from '@/ui/Link';
import { Mark } from '@/ui/Mark';
import { Money } from '@/ui/Money';
import { Empty, Margin, Note, Sheet, SheetTitle } from '@/ui/Page';
import { Ruled, type RuledColumn } from '@/ui/Ruled';
import { Attachments } from '../shared/Attachments';
import { ComposeDialog } from '../shared/delivery/ComposeDialog';
import { MailNote } from '../shared/delivery/MailNote';
import { CreditActions } from '../shared/settlement/CreditActions';
import { UndoDialog } from '../shared/settlement/UndoDialog';
import { TimelineNote } from '../shared/TimelineNote';
import { useOpenBook } from '../shell/BookContext';
import { today, useBook } from '../shell/book';
import { EntriesNote } from '../shell/EntriesNote';
import { routes } from '../shell/routes';
import { DishonourDialog } from './DishonourDialog';
import { writeReceipt } from './paymentMail';
import { ReceiptPrint } from './ReceiptPrint';

const LINK = 'underline decoration-rule underline-offset-4';

/** The ways in which its money came, and what was withheld with it. */
function Parts({ receipt, withheld }: { readonly receipt: Receipt; readonly withheld: readonly Withheld[] }) {
  const { accounts, currency: home } = useOpenBook();
  const { parts, currency, amount } = receipt;
  const rows = [
    ...parts.map((part, i) => ({
      key: `part-${i}`,
      how: part.method as string,
      detail: [
        part.cheque === null ? '' : `${part.cheque.number} of ${writeDate(part.cheque.date)}`.trim(),
        accounts.find(({ code }) => code === part.account)?.name ?? part.account,
      ]
        .filter(Boolean)
        .join(' · '),
      charge: part.charge,
      home: part.home,
      amount: part.amount,
    })),
    ...withheld.map((one) => ({
      key: one.id,
      how: 'withheld',
      detail: `${one.typeName} · ${one.documentNumber}${one.certified === one.home ? ' · certified' : ''}`,
      charge: NOTHING,
      home: one.home,
      amount: one.amount,
    })),
  ];
  type Row = (typeof rows)[number];
  const abroad = currency !== home;
  const charged = parts.some(({ charge }) => charge !== NOTHING);
  const columns: RuledColumn<Row>[] = [
    { head: 'Payment method', width: '90px', cell: (row) => row.how },
    { head: 'Account', cell: (row) => <span className="text-soft">{row.detail}</span> },
    ...(charged
      ? [
          {
            head: 'Bank charge',
            align: 'right',
            cell: (row) => (row.charge === NOTHING ? '' : <Money amount={row.charge} currency={currency} />),
          } satisfies RuledColumn<Row>,
        ]
      : []),
    ...(abroad
      ? [
          {
            head: `Amount in ${home}`,
            align: 'right',
            cell: (row) => <Money amount={row.home} currency={home} />,
          } satisfies RuledColumn<Row>,
        ]
      : []),
    { head: 'Amount', align: 'right', cell: (row) => <Money amount={row.amount} currency={currency} /> },
  ];
  return (
    <Ruled
      caption="Payments"
      className="mb-5"
      rows={rows}
      keyOf={(row) => row.key}
      columns={columns}
      sums={[
        'Received',
        ...columns.slice(1, -1).map(() => ''),
        <Money key="sum" amount={amount} currency={currency} withCode />,
      ]}
    />
  );
}

/** What it settles and settled, each to be undone. */
function Settles({ file, onUndo }: { readonly file: ReceiptFile; readonly onUndo: (one: Allocation) => void }) {
  const { receipt, allocations } = file;
  const { currency } = receipt;
  if (allocations.length === 0) return <p className="text-soft">Nothing is allocated yet.</p>;
  const standing = allocations.filter(({ undone, closing }) => undone === null && closing === undefined);
  return (
    <Ruled
      caption="Allocations"
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
        { head: 'Date', width: '120px', cell: (a) => writeDate(a.date) },
        {
          head: '',
          cell: (a) => {
            if (a.undone !== null) return <span className="text-soft">⊘ undone {writeDate(a.undone.on)}</span>;
            if (a.closing !== undefined) return <span className="text-soft">small difference closed</span>;
            return (
              <>
                {a.debtKind === 'refund' && <span className="text-soft">given back </span>}
                <Button weight="quiet" className="-my-1" aria-label={`Undo ${a.debtNumber}`} onClick={() => onUndo(a)}>
                  Undo…
                </Button>
              </>
            );
          },
        },
        {
          head: 'Allocated',
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
      sums={[
        'Allocated',
        '',
        '',
        <Money key="sum" amount={total(standing.map(({ amount }) => amount))} currency={currency} />,
      ]}
    />
  );
}

/** A recorded receipt: what came, what it settles, what it settled once, and what of it is on account. */
export function ReceiptScreen({ id }: { readonly id: string }) {
  const found = useBook((db) => receiptFile(db, id), [id]);
  const [undoing, setUndoing] = useState<Allocation | null>(null);
  const [asking, setAsking] = useState<'dishonour' | 'mail' | 'print' | null>(null);
  if (!found) return <Sheet label="Receipt">{found === null && <Empty>There is no such receipt.</Empty>}</Sheet>;
  const { receipt, withheld, lines } = found;
  const { number, customerId, currency, open, dishonoured } = receipt;
  const close = () => setAsking(null);
  return (
    <>
      <Sheet label={`Receipt ${number}`}>
        <SheetTitle aside={`${methodsOf(receipt) || 'withheld'} · ${writeDate(receipt.date)}`}>
          Receipt {number}
        </SheetTitle>
        <p className="mb-4">
          <Link href={routes.customer(customerId)} className={LINK}>
            {receipt.customerName}
          </Link>
          {receipt.reference && <span className="text-soft"> · {receipt.reference}</span>}
        </p>
        {dishonoured !== null && (
          <p className="mb-4">
            <Mark kind="cancelled" /> {dishonoured.mistake ? 'Cancelled' : 'Returned unpaid'} on{' '}
            {writeDate(dishonoured.on)}
            {dishonoured.reason && `: ${dishonoured.reason}`}.
          </p>
        )}
        {dishonoured === null && isPostDated(receipt, today()) && (
          <p className="mb-4">
            <Mark kind="note" /> Post-dated: it counts from {writeDate(receipt.valueDate)}.
          </p>
        )}
        <Parts receipt={receipt} withheld={withheld} />
        <Settles file={found} onUndo={setUndoing} />
        {open > 0n && (
          <div className="mt-3 flex items-center justify-between px-1.5">
            <CreditActions credit={{ id, number, customerId, currency, left: open }} />
            <span>
              On account <Money amount={open} currency={currency} withCode className="ml-2" />
            </span>
          </div>
        )}
        {receipt.remarks && <p className="mt-4 text-soft">Remarks: {receipt.remarks}</p>}
        <div className="mt-auto flex gap-2.5 pt-6">
          <Button onClick={() => setAsking('mail')}>Send by mail…</Button>
          <Button onClick={() => setAsking('print')}>Print preview</Button>
          {dishonoured === null && <Button onClick={() => setAsking('dishonour')}>Returned unpaid…</Button>}
        </div>
        {undoing !== null && <UndoDialog allocation={undoing} onClose={() => setUndoing(null)} />}
        {asking === 'dishonour' && <DishonourDialog receipt={receipt} onClose={close} />}
        {asking === 'mail' && <ComposeDialog about={number} write={() => writeReceipt(found)} onClose={close} />}
        {asking === 'print' && <ReceiptPrint file={found} onClose={close} />}
      </Sheet>
      <Margin>
        <EntriesNote sides={lines}>
          <Link href={routes.entry(receipt.entryId)} className="mt-1 block text-sm underline underline-offset-2">
            Journal
          </Link>
        </EntriesNote>
        <Note title="Files">
          <Attachments ownerId={id} />
        </Note>
        <MailNote mails={found.mails} />
        <TimelineNote id={id} events={found.events} mails={found.mails} />
      </Margin>
    </>
  );
}
