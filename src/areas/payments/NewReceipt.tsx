'use client';

import { useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import { toast } from 'sonner';
import { isIsoDate } from '@/core/kernel/date';
import { NOTHING } from '@/core/kernel/money';
import type { Refusal } from '@/core/kernel/result';
import { showMoney } from '@/core/kernel/show';
import { readTypedMoney, typedMoney } from '@/core/kernel/typedMoney';
import { accountFor } from '@/core/ledger/account';
import { readTypedDate } from '@/core/parties/terms';
import { type Debt, type FillOrder, fill, proposalFor, wholeProposal } from '@/core/settlement/proposal';
import { wordRefusal, wordRefusals } from '@/core/wording/refusals';
import { recordReceipt } from '@/store/payments/actions/recordReceipt';
import { debtsOf } from '@/store/payments/queries/debts';
import { recordOf } from '@/store/records';
import { findCustomers } from '@/store/sales/queries/documents';
import { Button } from '@/ui/Button';
import { ChoiceField, TextField } from '@/ui/Field';
import { FindBox } from '@/ui/FindBox';
import { Money } from '@/ui/Money';
import { Sheet, SheetTitle } from '@/ui/Page';
import { DateField } from '../shared/DateField';
import { OnAccount } from '../shared/settlement/OnAccount';
import { useOpenBook } from '../shell/BookContext';
import { act, today, useBook } from '../shell/book';
import { KEY_MAP } from '../shell/keyMap';
import { routes } from '../shell/routes';
import { useFinder } from '../shell/useFinder';
import { useKey } from '../shell/useKey';
import { usePreview } from '../shell/usePreview';
import { DebtsTable } from './DebtsTable';
import { PartsGrid } from './PartsGrid';
import { ReceiptMargin } from './ReceiptMargin';
import {
  EMPTY_HEAD,
  EMPTY_ROW,
  emptyPart,
  readReceipt,
  rowOf,
  type TypedHead,
  type TypedPart,
  type TypedRow,
} from './typedReceipt';

type Rows = Readonly<Record<string, TypedRow>>;

/** Records money from a customer against what it owes. Starts from one document when `documentId` names it. */
export function NewReceipt({
  documentId,
  customerId = '',
}: {
  readonly documentId: string;
  readonly customerId?: string;
}) {
  const router = useRouter();
  const { currency: home, accounts } = useOpenBook();
  const [customer, setCustomer] = useState<{ id: string; name: string } | null>(null);
  const [finding, setFinding] = useState<string | null>(null);
  const [head, setHead] = useState<TypedHead>({ ...EMPTY_HEAD, differenceTo: accountFor(accounts, 'rounding') });
  const [parts, setParts] = useState<readonly TypedPart[]>([emptyPart('1')]);
  const [rows, setRows] = useState<Rows>({});
  const [asked, setAsked] = useState('');
  const [refusals, setRefusals] = useState<readonly Refusal[]>([]);
  const [recording, setRecording] = useState(false);

  const { rows: options, pending } = useFinder(findCustomers, finding ?? '');
  const owed = useBook(
    async (db) => (customer === null ? [] : debtsOf(db, customer.id, documentId)),
    [customer?.id, documentId],
  );
  const all = owed ?? [];
  // One receipt is in one currency: that of the invoice it began with, or the first that is open.
  const currencies = [...new Set([...all.map(({ document }) => document.content.currency), home])];
  const currency = currencies.find((code) => code === asked) ?? currencies[0] ?? home;
  const debts = all.filter(({ document }) => document.content.currency === currency);
  const day = readTypedDate(head.date, today(), today()) ?? head.date;
  const on = isIsoDate(day) ? day : today();

  const start = useBook(
    async (db) => {
      const document = documentId === '' ? undefined : await recordOf(db, 'documents', documentId);
      const known = await recordOf(db, 'customers', document?.customerId ?? customerId);
      const [debt] = document
        ? (await debtsOf(db, document.customerId, document.id)).filter((d) => d.document.id === document.id)
        : [];
      return { known, debt };
    },
    [documentId, customerId],
  );
  const [begun, setBegun] = useState(false);
  useEffect(() => {
    // Once: an answer that moves the document meanwhile must not undo what was typed.
    if (begun || !start?.known) return;
    setBegun(true);
    setCustomer({ id: start.known.id, name: start.known.name });
    if (start.debt === undefined) return;
    const { id, content } = start.debt.document;
    setAsked(content.currency);
    if (start.debt.document.open > 0n) setRows({ [id]: rowOf(wholeProposal(start.debt, today()), content.currency) });
  }, [start, begun]);

  const change = (patch: () => void) => {
    patch();
    setRefusals([]);
  };
  const typing = (field: keyof TypedHead) => ({
    value: head[field],
    error: errorAt(field),
    onChange: (event: { target: { value: string } }) => change(() => setHead({ ...head, [field]: event.target.value })),
  });

  const read = readReceipt(head, parts, rows, { customerId: customer?.id ?? '', day, currency, home, debts });
  const { input, money, settled, left } = read;
  const chequeDate =
    parts.length === 1 && parts[0]?.method === 'cheque' ? readTypedDate(parts[0].chequeDate, today(), today()) : null;
  const valueDate = chequeDate !== null && chequeDate > on ? chequeDate : on;
  const dated = {
    ...input,
    parts: input.parts.map((part) => ({
      ...part,
      ...(part.chequeDate !== undefined && {
        chequeDate: readTypedDate(part.chequeDate, today(), today()) ?? part.chequeDate,
      }),
    })),
  };
  // What is unusual is asked about when it is recorded.
  const planned = usePreview(recordReceipt, input.to.length === 0 && money <= 0n ? null : { ...dated, agreed: true });

  /** Money that is typed and not given to a document yet; all that is typed where `from` says so. */
  const typedMoneyIn = (): ReturnType<typeof typedMoney> => {
    const [first] = parts;
    if (parts.length === 1 && first !== undefined)
      return typedMoney(first.amount, currency, 'parts[0].amount', NOTHING);
    return { ok: true, value: money };
  };
  const fillAll = (order: FillOrder) => {
    const sum = typedMoneyIn();
    if (!sum.ok) return setRefusals(sum.refusals);
    if (sum.value <= 0n)
      return setRefusals([{ code: 'invalid', path: 'parts[0].amount', wanted: 'amount-above-zero' }]);
    const { proposals } = fill(debts, sum.value, on, order);
    setRows(Object.fromEntries([...proposals].map(([id, one]) => [id, rowOf(one, currency, rows[id])])));
    setRefusals([]);
  };
  const tick = (debt: Debt, ticked: boolean) =>
    change(() => {
      const { id } = debt.document;
      const { [id]: own, ...others } = rows;
      if (!ticked) return setRows(others);
      const rest = readReceipt(head, parts, others, { customerId: '', day, currency, home, debts }).left;
      const whole = wholeProposal(debt, on);
      const one = rest > 0n && rest < whole.money ? proposalFor(debt, rest, on) : whole;
      setRows({ ...rows, [id]: rowOf(one, currency, own) });
    });
  const tickAll = () =>
    change(() =>
      setRows(
        Object.fromEntries(
          debts.map((d) => [d.document.id, rowOf(wholeProposal(d, on), currency, rows[d.document.id])]),
        ),
      ),
    );
  const type = (debt: Debt, cell: 'money' | 'discount' | 'difference', text: string) =>
    change(() => {
      const row = { ...(rows[debt.document.id] ?? EMPTY_ROW), [cell]: text };
      const amount = cell === 'money' ? readTypedMoney(text, currency) : null;
      const one = amount === null ? row : { ...rowOf(proposalFor(debt, amount, on), currency, row), money: text };
      setRows({ ...rows, [debt.document.id]: one });
    });
  const typeWithheld = (debt: Debt, typeId: string, text: string) =>
    change(() => {
      const row = rows[debt.document.id] ?? EMPTY_ROW;
      setRows({ ...rows, [debt.document.id]: { ...row, withheld: { ...row.withheld, [typeId]: text } } });
    });

  const record = async (agreed = false) => {
    if (recording) return;
    if (read.unread.length > 0) return setRefusals(read.unread);
    if (left < 0n)
      return setRefusals([
        {
          code: 'invalid',
          path: 'parts[0].amount',
          wanted: { what: 'sum-that-is-settled', received: money, settled, currency },
        },
      ]);
    setRecording(true);
    try {
      const result = await act(recordReceipt, { ...dated, agreed });
      if (!result.ok) return setRefusals(result.refusals);
      toast(`${result.value.number} is recorded`);
      router.push(routes.receipt(result.value.id));
    } finally {
      setRecording(false);
    }
  };
  useKey('main', () => void record());

  const shown = new Set<string>();
  function errorAt(path: string): string | undefined {
    shown.add(path);
    const found = refusals.find((refusal) => refusal.path === path);
    return found && wordRefusal(found);
  }
  const errorOf = (id: string, cell: string) => {
    const at = input.to.findIndex((one) => one.documentId === id);
    if (at < 0) return undefined;
    if (cell !== 'withheld') return errorAt(`to[${at}].${cell}`);
    return input.to[at]?.withheld?.map((_, i) => errorAt(`to[${at}].withheld[${i}].amount`)).find(Boolean);
  };
  const rows1 = (
    <>
      <div className="grid grid-cols-[1.5fr_120px_1fr] gap-x-4">
        <div>
          <span className="block text-soft text-sm">Customer</span>
          <FindBox
            label="Customer"
            className="h-8 w-full rounded-sm border border-rule bg-sheet px-2 hover:border-soft"
            value={finding ?? customer?.name ?? ''}
            placeholder="Who paid?"
            pending={pending}
            invalid={errorAt('customerId') !== undefined}
            options={options.map((c) => ({ id: c.id, label: c.name, detail: c.address.city }))}
            onType={setFinding}
            onLeave={() => setFinding(null)}
            onPick={(option) =>
              change(() => {
                setFinding(null);
                setRows({});
                setCustomer({ id: option.id, name: option.label });
              })
            }
          />
          <p className="text-brick text-sm">{errorAt('customerId') && `▲ ${errorAt('customerId')}`}</p>
        </div>
        <DateField label="Date" {...typing('date')} />
        <TextField label="Reference" {...typing('reference')} />
      </div>
      <details
        className="mb-1"
        open={head.number !== '' || head.remarks !== '' || refusals.some((r) => r.path === 'number')}
      >
        <summary className="mb-1 cursor-pointer text-soft text-sm">Number, currency, remarks</summary>
        <div className="grid grid-cols-[1fr_120px_120px_1.4fr] gap-x-4">
          <TextField label="Number" placeholder="next of the series" {...typing('number')} />
          <ChoiceField
            label="Currency"
            options={currencies.map((code) => [code, code] as const)}
            value={currency}
            onChange={(event) =>
              change(() => {
                setAsked(event.target.value);
                setRows({});
              })
            }
          />
          {currency === home ? (
            <span />
          ) : (
            <TextField
              label={`1 ${home} in ${currency}`}
              inputMode="decimal"
              placeholder="rate of the day"
              {...typing('perHome')}
            />
          )}
          <TextField label="Remarks" placeholder="for ourselves" {...typing('remarks')} />
        </div>
      </details>
    </>
  );
  const sheet = (
    <>
      <SheetTitle aside={currency === home ? '' : `in ${currency}`}>Receipt</SheetTitle>
      {rows1}
      {customer === null ? (
        <p className="py-6 text-soft">Choose who paid, and what is open stands here.</p>
      ) : (
        <>
          <OnAccount customerId={customer.id} />
          <PartsGrid
            parts={parts}
            currency={currency}
            home={home}
            accounts={accounts}
            errorAt={errorAt}
            onChange={(next) => change(() => setParts(next))}
            onAdd={() => change(() => setParts([...parts, emptyPart(`${Number(parts.at(-1)?.id ?? '0') + 1}`)]))}
            onEnter={() => fillAll('oldest')}
          />
          {debts.length > 0 ? (
            <>
              <div className="mb-2 flex items-center gap-2.5">
                <Button onClick={() => fillAll('oldest')}>Oldest first</Button>
                <Button onClick={() => fillAll('newest')}>Newest first</Button>
                <Button onClick={tickAll}>All</Button>
                <Button onClick={() => change(() => setRows({}))}>None</Button>
                <span className="ml-auto text-soft" aria-live="polite">
                  {left < 0n ? 'Settled beyond what came ' : 'Left over '}
                  <Money
                    amount={left < 0n ? (-left as typeof left) : left}
                    currency={currency}
                    withCode
                    className={`ml-1 ${left < 0n ? 'text-brick' : 'text-ink'}`}
                  />
                </span>
              </div>
              <DebtsTable
                debts={debts}
                rows={rows}
                currency={currency}
                customerId={customer.id}
                today={on}
                errorAt={errorOf}
                onType={type}
                onWithheld={typeWithheld}
                onTick={tick}
              />
              {input.to.some(({ difference }) => difference !== undefined) && (
                <ChoiceField
                  label="Differences go to"
                  className="mt-2 w-[260px] self-end"
                  options={accounts
                    .filter(({ type: kind }) => kind === 'expense' || kind === 'income')
                    .map(({ code, name }) => [code, `${code} ${name}`] as const)}
                  {...typing('differenceTo')}
                />
              )}
            </>
          ) : (
            owed !== undefined && (
              <p className="py-6 text-soft">
                {customer.name} owes nothing{currencies.length > 1 ? ` in ${currency}` : ''}: what came is kept on
                account.
              </p>
            )
          )}
          {left > 0n && (
            <p className="flex justify-between px-1.5 py-1">
              <span>Kept on account</span>
              <Money amount={left} currency={currency} withCode />
            </p>
          )}
        </>
      )}
    </>
  );
  const unusual = refusals.some((refusal) => refusal.code === 'unusual');
  const foot = () => {
    const others = refusals.filter((refusal) => !shown.has(refusal.path));
    return (
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
        <Button weight="main" data-record disabled={recording} onClick={() => void record()} title={KEY_MAP.main.shown}>
          Record {money > NOTHING ? `${showMoney(money, currency)} ${currency}` : 'the receipt'}
        </Button>
      </div>
    );
  };
  return (
    <>
      <Sheet label="New receipt">
        {sheet}
        <Foot make={foot} />
      </Sheet>
      <ReceiptMargin
        read={read}
        debts={debts}
        rows={rows}
        currency={currency}
        valueDate={valueDate}
        planned={planned}
      />
    </>
  );
}

/** Drawn after the fields, so that it knows which of them showed what was refused. */
function Foot({ make }: { readonly make: () => React.ReactNode }) {
  return make();
}
