'use client';

import { useRouter } from 'next/navigation';
import { type KeyboardEvent, useEffect, useState } from 'react';
import { toast } from 'sonner';
import type { ReceiptInput } from '@/core/decisions/payments/recordReceipt';
import { writeDate } from '@/core/kernel/date';
import { minor, NOTHING } from '@/core/kernel/money';
import type { Refusal } from '@/core/kernel/result';
import { showMoney } from '@/core/kernel/show';
import { PAYMENT_METHODS, type PaymentMethod } from '@/core/parties/paymentMethod';
import { readTypedDate } from '@/core/parties/terms';
import { allocated, allocateOldestFirst, moneySample, readTypedMoney, type Settling } from '@/core/settlement/receipt';
import { wordRefusal, wordRefusals } from '@/core/wording/refusals';
import { recordReceipt } from '@/store/payments/actions/recordReceipt';
import { recordOf } from '@/store/records';
import { findCustomers, openInvoices } from '@/store/sales/queries/documents';
import { Button } from '@/ui/Button';
import { ChoiceField, TextField } from '@/ui/Field';
import { FindBox } from '@/ui/FindBox';
import { Money } from '@/ui/Money';
import { Margin, Note, NoteRow, Sheet, SheetTitle } from '@/ui/Page';
import { Ruled } from '@/ui/Ruled';
import { DateField } from '../shared/DateField';
import { OnAccount } from '../shared/settlement/OnAccount';
import { useOpenBook } from '../shell/BookContext';
import { act, today, useBook } from '../shell/book';
import { EntriesNote } from '../shell/EntriesNote';
import { KEY_MAP } from '../shell/keyMap';
import { routes } from '../shell/routes';
import { useFinder } from '../shell/useFinder';
import { useKey } from '../shell/useKey';
import { usePreview } from '../shell/usePreview';

/** Records money from a customer against open invoices. Starts from one when `documentId` names it. */
export function NewReceipt({ documentId }: { readonly documentId: string }) {
  const router = useRouter();
  const { currency: home } = useOpenBook();
  const [customer, setCustomer] = useState<{ id: string; name: string } | null>(null);
  const [typed, setTyped] = useState<string | null>(null);
  const [date, setDate] = useState('today');
  const [method, setMethod] = useState<PaymentMethod>('bank');
  const [reference, setReference] = useState('');
  /** What is typed beside each invoice, by its id. */
  const [amounts, setAmounts] = useState<Readonly<Record<string, string>>>({});
  const [sum, setSum] = useState('');
  const [refusals, setRefusals] = useState<readonly Refusal[]>([]);
  const [recording, setRecording] = useState(false);

  const { rows: options, pending } = useFinder(findCustomers, typed ?? '');
  const owed = useBook(async (db) => (customer === null ? [] : openInvoices(db, customer.id)), [customer?.id]);
  const all = owed ?? [];
  // One receipt is in one currency: that of the invoice it began with, or the first that is open.
  const [asked, setAsked] = useState('');
  const [perHome, setPerHome] = useState('');
  const currencies = [...new Set(all.map((document) => document.content.currency))];
  const currency = currencies.find((code) => code === asked) ?? currencies[0] ?? home;
  const open = all.filter((document) => document.content.currency === currency);
  const start = useBook(async (db) => (documentId === '' ? null : recordOf(db, 'documents', documentId)), [documentId]);

  useEffect(() => {
    if (!start) return;
    setCustomer({ id: start.customerId, name: start.customerName });
    setAsked(start.content.currency);
    setAmounts({ [start.id]: showMoney(start.open, start.content.currency) });
  }, [start]);

  const allocations: Settling[] = open.flatMap((document) => {
    const amount = readTypedMoney(amounts[document.id] ?? '', currency);
    return amount === null ? [] : [{ documentId: document.id, number: document.number, amount }];
  });
  const total = allocated(allocations);
  const unread = open.filter(
    (d) => (amounts[d.id] ?? '').trim() !== '' && readTypedMoney(amounts[d.id] ?? '', currency) === null,
  );

  const change = (patch: () => void) => {
    patch();
    setRefusals([]);
  };
  const sample = { what: 'money-such-as', sample: moneySample(currency) } as const;
  const fill = () => {
    const amount = readTypedMoney(sum, currency);
    if (amount === null || amount <= 0n) {
      setRefusals([{ code: 'invalid', path: 'sum', wanted: sample }]);
      return;
    }
    const { allocations: filled } = allocateOldestFirst(open, amount);
    setAmounts(Object.fromEntries(filled.map((a) => [a.documentId, showMoney(a.amount, currency)])));
    setRefusals([]);
  };
  /** What came; null while it can't be read. */
  const received = sum.trim() === '' ? total : readTypedMoney(sum, currency);
  const left = minor((received ?? total) - total);
  const written: ReceiptInput = {
    customerId: customer?.id ?? '',
    date: readTypedDate(date, today(), today()) ?? date,
    method,
    reference,
    allocations,
    ...(received !== null && { sum: received }),
    currency,
    perHome,
  };
  // An unusual day is asked about when it is recorded.
  const planned = usePreview(recordReceipt, (received ?? NOTHING) <= 0n ? null : { ...written, anyDay: true });
  const record = async (anyDay = false) => {
    if (recording) return;
    if (unread.length > 0) {
      setRefusals(
        unread.map((d) => ({
          code: 'invalid',
          path: `amount-${d.id}`,
          wanted: sample,
          found: amounts[d.id] ?? '',
        })),
      );
      return;
    }
    if (received === null || received < total) {
      const wanted =
        received === null ? sample : ({ what: 'sum-that-is-settled', received, settled: total, currency } as const);
      setRefusals([{ code: 'invalid', path: 'sum', wanted }]);
      return;
    }
    setRecording(true);
    try {
      const result = await act(recordReceipt, { ...written, anyDay });
      if (!result.ok) return setRefusals(result.refusals);
      toast(`${result.value.number} is recorded`);
      router.push(routes.receipt(result.value.id));
    } finally {
      setRecording(false);
    }
  };
  useKey('main', () => void record());

  const errorAt = (path: string) => {
    const found = refusals.find((refusal) => refusal.path === path);
    return found && wordRefusal(found);
  };
  const errorOf = (id: string) => {
    const at = allocations.findIndex((a) => a.documentId === id);
    return errorAt(`amount-${id}`) ?? (at < 0 ? undefined : errorAt(`allocations[${at}].amount`));
  };
  const moveOn = (event: KeyboardEvent<HTMLInputElement>) => {
    if (event.key !== 'Enter' || event.ctrlKey) return;
    event.preventDefault();
    const cells = [...document.querySelectorAll<HTMLInputElement>('[data-amount]')];
    const next = cells[cells.indexOf(event.currentTarget) + 1];
    next?.select();
    (next ?? document.querySelector<HTMLElement>('[data-record]'))?.focus();
  };
  const shownAt = new Set([
    'customerId',
    'date',
    'sum',
    'perHome',
    ...open.map((d) => `amount-${d.id}`),
    ...allocations.map((_, i) => `allocations[${i}].amount`),
  ]);
  const unusual = refusals.some((refusal) => refusal.code === 'unusual');
  const others = refusals.filter((refusal) => !shownAt.has(refusal.path));
  return (
    <>
      <Sheet label="New receipt">
        <SheetTitle>Receipt</SheetTitle>
        <div className="grid grid-cols-[1.4fr_1fr_1fr_1.2fr] gap-x-4">
          <div>
            <span className="block text-soft text-sm">Customer</span>
            <FindBox
              label="Customer"
              className="h-8 w-full rounded-sm border border-rule bg-sheet px-2 hover:border-soft"
              value={typed ?? customer?.name ?? ''}
              placeholder="Who paid?"
              pending={pending}
              invalid={errorAt('customerId') !== undefined}
              options={options.map((c) => ({ id: c.id, label: c.name, detail: c.address.city }))}
              onType={setTyped}
              onLeave={() => setTyped(null)}
              onPick={(option) =>
                change(() => {
                  setTyped(null);
                  setAmounts({});
                  setCustomer({ id: option.id, name: option.label });
                })
              }
            />
            <p className="text-brick text-sm">{errorAt('customerId') && `▲ ${errorAt('customerId')}`}</p>
          </div>
          <DateField
            label="Date"
            value={date}
            error={errorAt('date')}
            onChange={(e) => change(() => setDate(e.target.value))}
          />
          <ChoiceField
            label="How"
            options={PAYMENT_METHODS.map((m) => [m, m] as const)}
            value={method}
            onChange={(e) => setMethod(e.target.value as PaymentMethod)}
          />
          <TextField label="Reference" value={reference} onChange={(e) => setReference(e.target.value)} />
        </div>
        {(currencies.length > 1 || currency !== home) && (
          <div className="grid grid-cols-[1fr_1fr_2fr] gap-x-4">
            <ChoiceField
              label="Currency of the money"
              options={currencies.map((code) => [code, code] as const)}
              value={currency}
              onChange={(e) =>
                change(() => {
                  setAsked(e.target.value);
                  setAmounts({});
                })
              }
            />
            {currency !== home && (
              <TextField
                label={`1 ${home} in ${currency}`}
                inputMode="decimal"
                placeholder="rate of the day"
                value={perHome}
                error={errorAt('perHome')}
                onChange={(e) => change(() => setPerHome(e.target.value))}
              />
            )}
          </div>
        )}
        {customer !== null && <OnAccount customerId={customer.id} />}
        {customer === null && <p className="py-6 text-soft">Choose who paid, and the open invoices stand here.</p>}
        {customer !== null && owed !== undefined && open.length === 0 && (
          <p className="py-6 text-soft">{customer.name} owes nothing: what came is kept on account.</p>
        )}
        {customer !== null && owed !== undefined && (
          <div className="mt-2 mb-3 flex items-start gap-2.5">
            <TextField
              label="Amount received"
              className="w-[150px]"
              inputMode="decimal"
              value={sum}
              error={errorAt('sum')}
              onChange={(e) => change(() => setSum(e.target.value))}
              onKeyDown={(event) => {
                if (event.key === 'Enter' && !event.ctrlKey) fill();
              }}
            />
            <Button className="mt-[18px]" onClick={fill}>
              Oldest first
            </Button>
          </div>
        )}
        {open.length > 0 && (
          <Ruled
            caption="Open invoices"
            rows={open}
            keyOf={(document) => document.id}
            columns={[
              { head: 'Invoice', cell: (d) => d.number },
              { head: 'Issued', cell: (d) => writeDate(d.issueDate) },
              {
                head: 'Due',
                cell: (d) => (
                  <span className={d.dueDate < today() ? 'text-brick' : ''}>
                    {writeDate(d.dueDate)}
                    {d.dueDate < today() && ' ▲'}
                  </span>
                ),
              },
              {
                head: 'Original',
                align: 'right',
                cell: (d) => <Money amount={d.figures.totals.payable} currency={currency} />,
              },
              { head: 'Open', align: 'right', cell: (d) => <Money amount={d.open} currency={currency} /> },
              {
                head: 'Settled now',
                align: 'right',
                width: '150px',
                cell: (d) => (
                  <>
                    <input
                      data-amount
                      aria-label={`Settled now on ${d.number}`}
                      aria-invalid={errorOf(d.id) !== undefined}
                      className="cell -my-1 block border-soft border-b bg-paper/40 text-right tabular-nums"
                      inputMode="decimal"
                      value={amounts[d.id] ?? ''}
                      onChange={(e) => change(() => setAmounts({ ...amounts, [d.id]: e.target.value }))}
                      onKeyDown={moveOn}
                    />
                    {errorOf(d.id) && <span className="block pt-1 text-brick text-sm">▲ {errorOf(d.id)}</span>}
                  </>
                ),
              },
            ]}
            sums={['Total', '', '', '', '', <Money key="total" amount={total} currency={currency} />]}
          />
        )}
        {left > 0n && (
          <p className="flex justify-between px-1.5 py-1">
            <span>Kept on account</span>
            <Money amount={left} currency={currency} withCode />
          </p>
        )}
        <div className="mt-auto pt-6">
          {others.length > 0 && (
            <p role="alert" className="mb-3 text-brick">
              ▲ {wordRefusals(others)}
            </p>
          )}
          {unusual && (
            <Button className="mr-2.5" disabled={recording} onClick={() => void record(true)}>
              Record it all the same
            </Button>
          )}
          <Button
            weight="main"
            data-record
            disabled={recording}
            onClick={() => void record()}
            title={KEY_MAP.main.shown}
          >
            Record{' '}
            {(received ?? NOTHING) > 0n ? `${showMoney(received ?? NOTHING, currency)} ${currency}` : 'the receipt'}
          </Button>
        </div>
      </Sheet>
      <Margin>
        <Note title="Workings">
          {open
            .filter((d) => allocations.some((a) => a.documentId === d.id))
            .map((d) => {
              const part = allocations.find((a) => a.documentId === d.id)?.amount ?? d.open;
              return (
                <NoteRow
                  key={d.id}
                  label={`${d.number}: ${showMoney(d.open, currency)} less ${showMoney(part, currency)}`}
                  figure={showMoney((d.open - part) as typeof part, currency)}
                />
              );
            })}
          {allocations.length === 0 && (
            <p className="text-soft text-sm">What stays open on each invoice stands here.</p>
          )}
        </Note>
        <EntriesNote sides={planned?.ok ? (planned.value.add?.journalLines ?? []) : []}>
          {planned?.ok === false && <p className="text-soft text-sm">{wordRefusals(planned.refusals)}</p>}
          {planned?.ok && currency !== home && (
            <p className="mt-1 text-soft text-sm">
              Posted in {home} by the rate of the day; what differs from the invoices’ own rate goes to exchange
              differences.
            </p>
          )}
        </EntriesNote>
      </Margin>
    </>
  );
}
