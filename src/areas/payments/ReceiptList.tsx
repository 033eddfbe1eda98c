'use client';

import { useState } from 'react';
import { type IsoDate, isIsoDate, writeDate } from '@/core/kernel/date';
import { PAYMENT_METHODS, type PaymentMethod } from '@/core/parties/paymentMethod';
import { readTypedDate } from '@/core/parties/terms';
import { standing } from '@/core/settlement/allocation';
import { methodsOf, type Receipt } from '@/core/settlement/receipt';
import { printedReceipt } from '@/print/account';
import { receiptFile } from '@/store/payments/queries/receiptFile';
import { listReceipts, type ReceiptStanding, standingOf } from '@/store/payments/queries/receipts';
import { Button } from '@/ui/Button';
import { ChoiceField, TextField } from '@/ui/Field';
import Link from '@/ui/Link';
import { Mark } from '@/ui/Mark';
import { Money } from '@/ui/Money';
import { Empty, Sheet, SheetTitle } from '@/ui/Page';
import { accountHead, pagesAsPdf } from '../shared/accountPrint';
import { DateField } from '../shared/DateField';
import { ListTable } from '../shared/ListTable';
import { RunDialog } from '../shared/RunDialog';
import { useMore } from '../shared/useMore';
import { useRun } from '../shared/useRun';
import { bookDb, today, useBook } from '../shell/book';
import { routes } from '../shell/routes';
import { saveFile } from '../shell/saveFile';
import { RECEIPT_MARKS } from './receiptMark';

const LINK = 'underline decoration-rule underline-offset-4';

/** Prints receipts of a list to one PDF, each in its customer’s language; it can be stopped. */
function PrintList({ receipts, onClose }: { readonly receipts: readonly Receipt[]; readonly onClose: () => void }) {
  const run = useRun();
  const print = () =>
    run.start(
      async ({ signal, tell }) => {
        const of = receipts.length;
        const pages = [];
        for (const [done, { id, customerId }] of receipts.entries()) {
          signal.throwIfAborted();
          const [file, head] = await Promise.all([receiptFile(bookDb(), id), accountHead(customerId)]);
          if (file !== null && head !== null) {
            const settles = standing(file.allocations).filter(({ closing }) => closing === undefined);
            pages.push(printedReceipt(head, file.receipt, settles, file.withheld));
          }
          tell({ done: done + 1, of });
        }
        saveFile('receipts.pdf', await pagesAsPdf(pages), 'application/pdf');
        return `${of} ${of === 1 ? 'receipt is' : 'receipts are'} printed.`;
      },
      (fault) => (fault === null ? 'Stopped; nothing was saved.' : `It could not be printed: ${fault.message}`),
    );
  return (
    <RunDialog
      title="Print the list"
      description={`${receipts.length} receipts as the list shows them, each in its customer’s language.`}
      run={run}
      label="Printed so far"
      choices={
        <Button weight="main" onClick={() => void print()}>
          One PDF
        </Button>
      }
      onClose={onClose}
    />
  );
}

/** All receipts: found by words, narrowed by day, method and how they stand, saved and printed as they are shown. */
export function ReceiptList() {
  const [text, setText] = useState('');
  const [from, setFrom] = useState('');
  const [until, setUntil] = useState('');
  const [method, setMethod] = useState<PaymentMethod | ''>('');
  const [stands, setStands] = useState<ReceiptStanding | ''>('');
  const [printing, setPrinting] = useState(false);
  const more = useMore();
  const on = today();
  const dayOf = (typed: string): IsoDate | '' => {
    const read = typed.trim() === '' ? '' : (readTypedDate(typed, on, on) ?? typed);
    return isIsoDate(read) ? read : '';
  };
  const filter = { text, from: dayOf(from), until: dayOf(until), method, standing: stands };
  const found = useBook((db) => listReceipts(db, filter, on, more.ask), [JSON.stringify(filter)], [more.ask]);
  const { rows, onMore } = more.of(found);
  const narrow = (patch: () => void) => {
    patch();
    more.again();
  };
  return (
    <Sheet label="All receipts">
      <SheetTitle>All receipts</SheetTitle>
      <div className="flex flex-wrap items-start gap-x-3">
        <TextField
          label="Number, customer or reference"
          className="w-[210px]"
          value={text}
          onChange={(event) => narrow(() => setText(event.target.value))}
        />
        <DateField
          label="From"
          className="w-[112px]"
          value={from}
          onChange={(event) => narrow(() => setFrom(event.target.value))}
        />
        <DateField
          label="Until"
          className="w-[112px]"
          value={until}
          onChange={(event) => narrow(() => setUntil(event.target.value))}
        />
        <ChoiceField
          label="Payment method"
          className="w-[96px]"
          options={[['', 'any'], ...PAYMENT_METHODS.map((one) => [one, one] as const)]}
          value={method}
          onChange={(event) => narrow(() => setMethod(event.target.value as PaymentMethod | ''))}
        />
        <ChoiceField
          label="Status"
          className="w-[150px]"
          options={[['', 'any'], ...Object.entries(RECEIPT_MARKS).map(([value, [, words]]) => [value, words] as const)]}
          value={stands}
          onChange={(event) => narrow(() => setStands(event.target.value as ReceiptStanding | ''))}
        />
        <Button className="mt-[18px]" disabled={(rows ?? []).length === 0} onClick={() => setPrinting(true)}>
          Print them
        </Button>
      </div>
      {rows !== undefined && rows.length === 0 && <Empty>No receipt is of this kind. Widen what is asked for.</Empty>}
      {rows !== undefined && rows.length > 0 && (
        <ListTable
          caption="Receipts"
          rows={rows}
          keyOf={({ id }) => id}
          onMore={onMore}
          columns={[
            {
              head: 'Number',
              value: ({ number }) => number,
              cell: ({ id, number }) => (
                <Link href={routes.receipt(id)} className={LINK}>
                  {number}
                </Link>
              ),
            },
            { head: 'Date', value: ({ date }) => date, cell: ({ date }) => writeDate(date) },
            {
              head: 'Customer',
              value: ({ customerName }) => customerName,
              cell: ({ customerId, customerName }) => (
                <Link href={routes.customer(customerId)} className={LINK}>
                  {customerName}
                </Link>
              ),
            },
            { head: 'Payment method', cell: (receipt) => methodsOf(receipt) || 'withheld' },
            { head: 'Reference', cell: ({ reference }) => reference },
            {
              head: 'Status',
              value: (receipt) => RECEIPT_MARKS[standingOf(receipt, on)][1],
              cell: (receipt) => {
                const [mark, words] = RECEIPT_MARKS[standingOf(receipt, on)];
                return (
                  <>
                    <Mark kind={mark} /> {words}
                  </>
                );
              },
            },
            {
              head: 'Amount',
              align: 'right',
              value: ({ amount }) => amount,
              cell: ({ amount, currency }) => <Money amount={amount} currency={currency} withCode />,
            },
            {
              head: 'On account',
              align: 'right',
              value: ({ open }) => open,
              cell: ({ open, currency }) => (open > 0n ? <Money amount={open} currency={currency} /> : ''),
            },
          ]}
        />
      )}
      {printing && <PrintList receipts={rows ?? []} onClose={() => setPrinting(false)} />}
    </Sheet>
  );
}
