'use client';

import { useEffect, useState } from 'react';
import { isIsoDate } from '@/core/kernel/date';
import { NOTHING } from '@/core/kernel/money';
import { accept, type Refusal } from '@/core/kernel/result';
import { readTypedMoney, typedMoney } from '@/core/kernel/typedMoney';
import { accountFor } from '@/core/ledger/account';
import { type Debt, type FillOrder, fill, proposalFor, wholeProposal } from '@/core/settlement/proposal';
import { wordRefusal } from '@/core/wording/refusals';
import { recordReceipt } from '@/store/payments/actions/recordReceipt';
import { debtsOf } from '@/store/payments/queries/debts';
import { recordOf } from '@/store/records';
import { typedDay } from '../shared/typedDay';
import { useOpenBook } from '../shell/BookContext';
import { act, today, useBook } from '../shell/book';
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

/** Who or what a new receipt begins with; empty where it begins with nothing. */
export interface BegunWith {
  readonly documentId: string;
  readonly customerId: string;
}

type Rows = Readonly<Record<string, TypedRow>>;

const readDay = (typed: string): string => typedDay(typed);

/** What is typed into a new receipt, what it comes to, and what can be done with it. */
export function useTypedReceipt(
  { documentId, customerId }: BegunWith,
  onRecorded: (id: string, number: string) => void,
) {
  const { currency: home, accounts } = useOpenBook();
  const [customer, setCustomer] = useState<{ readonly id: string; readonly name: string } | null>(null);
  const [head, setHead] = useState<TypedHead>({ ...EMPTY_HEAD, differenceTo: accountFor(accounts, 'rounding') });
  const [parts, setParts] = useState<readonly TypedPart[]>([emptyPart('1')]);
  const [rows, setRows] = useState<Rows>({});
  const [asked, setAsked] = useState('');
  const [refusals, setRefusals] = useState<readonly Refusal[]>([]);
  const [recording, setRecording] = useState(false);
  const [begun, setBegun] = useState(false);

  const owed = useBook(
    async (db) => (customer === null ? [] : debtsOf(db, customer.id, documentId)),
    [customer?.id, documentId],
  );
  const all = owed ?? [];
  // One receipt is in one currency: that of the invoice it began with, or the first that is open.
  const currencies = [...new Set([...all.map(({ document }) => document.content.currency), home])];
  const currency = currencies.find((code) => code === asked) ?? currencies[0] ?? home;
  const debts = all.filter(({ document }) => document.content.currency === currency);
  const day = readDay(head.date);
  const on = isIsoDate(day) ? day : today();

  const start = useBook(
    async (db) => {
      const document = documentId === '' ? null : await recordOf(db, 'documents', documentId);
      const known = await recordOf(db, 'customers', document?.customerId ?? customerId);
      if (!document) return { known, debt: undefined };
      const owing = await debtsOf(db, document.customerId, document.id);
      return { known, debt: owing.find((debt) => debt.document.id === document.id) };
    },
    [documentId, customerId],
  );
  useEffect(() => {
    // Once: an answer that moves the document meanwhile must not undo what was typed.
    if (begun || !start?.known) return;
    setBegun(true);
    setCustomer({ id: start.known.id, name: start.known.name });
    if (start.debt === undefined) return;
    const { id, content, open } = start.debt.document;
    setAsked(content.currency);
    if (open > 0n) setRows({ [id]: rowOf(wholeProposal(start.debt, today()), content.currency) });
  }, [start, begun]);

  const reading = { customerId: customer?.id ?? '', day, currency, home, debts };
  const read = readReceipt(head, parts, rows, reading);
  const input = {
    ...read.input,
    parts: read.input.parts.map((part) => ({
      ...part,
      ...(part.chequeDate !== undefined && { chequeDate: readDay(part.chequeDate) }),
    })),
  };
  const [only] = input.parts;
  const later = input.parts.length === 1 ? (only?.chequeDate ?? '') : '';
  const valueDate = isIsoDate(later) && later > on ? later : on;

  /** Changes what is typed; what was refused before is forgotten. */
  const change = (patch: () => void) => {
    patch();
    setRefusals([]);
  };
  const rowFor = ({ document }: Debt): TypedRow => rows[document.id] ?? EMPTY_ROW;
  const keepRow = ({ document }: Debt, row: TypedRow) => setRows({ ...rows, [document.id]: row });

  /** Enter came before the open documents did: they are filled as soon as they are there. */
  const [hurried, setHurried] = useState<FillOrder | null>(null);
  const fillAll = (order: FillOrder) => {
    if (owed === undefined) return setHurried(order);
    const [first] = parts;
    const sum =
      parts.length === 1 && first !== undefined
        ? typedMoney(first.amount, currency, 'parts[0].amount', NOTHING)
        : accept(read.money);
    if (!sum.ok) return setRefusals(sum.refusals);
    if (sum.value <= 0n)
      return setRefusals([{ code: 'invalid', path: 'parts[0].amount', wanted: 'amount-above-zero' }]);
    const { proposals } = fill(debts, sum.value, on, order);
    change(() => setRows(Object.fromEntries([...proposals].map(([id, one]) => [id, rowOf(one, currency, rows[id])]))));
  };

  // biome-ignore lint/correctness/useExhaustiveDependencies: the answer that was waited for is what matters
  useEffect(() => {
    if (hurried === null || owed === undefined) return;
    setHurried(null);
    fillAll(hurried);
  }, [hurried, owed]);

  /** It was asked to be recorded before the open documents were there and filled: it is as soon as they are. */
  const [asksToRecord, setAsksToRecord] = useState(false);
  const isWaiting = owed === undefined || hurried !== null;
  const record = async (agreed = false): Promise<void> => {
    if (recording) return;
    if (isWaiting) return setAsksToRecord(true);
    if (read.unread.length > 0) return setRefusals(read.unread);
    if (read.left < 0n) {
      const { money: received, settled } = read;
      const wanted = { what: 'sum-that-is-settled', received, settled, currency } as const;
      return setRefusals([{ code: 'invalid', path: 'parts[0].amount', wanted }]);
    }
    setRecording(true);
    try {
      const result = await act(recordReceipt, { ...input, agreed });
      if (!result.ok) return setRefusals(result.refusals);
      onRecorded(result.value.id, result.value.number);
    } finally {
      setRecording(false);
    }
  };

  // biome-ignore lint/correctness/useExhaustiveDependencies: what was waited for is what matters
  useEffect(() => {
    if (!asksToRecord || isWaiting) return;
    setAsksToRecord(false);
    void record();
  }, [asksToRecord, isWaiting]);

  return {
    customer,
    head,
    parts,
    rows,
    /** Undefined while it is looked up. */
    owed,
    debts,
    currencies,
    currency,
    on,
    valueDate,
    read,
    input,
    refusals,
    recording: recording || asksToRecord,
    record,
    fillAll,
    pickCustomer: (id: string, name: string) =>
      change(() => {
        setRows({});
        setCustomer({ id, name });
      }),
    pickCurrency: (code: string) =>
      change(() => {
        setAsked(code);
        setRows({});
      }),
    typeHead: (field: keyof TypedHead, text: string) => change(() => setHead({ ...head, [field]: text })),
    changeParts: (next: readonly TypedPart[]) => change(() => setParts(next)),
    addPart: () => change(() => setParts([...parts, emptyPart(`${Number(parts.at(-1)?.id ?? '0') + 1}`)])),
    tick: (debt: Debt, ticked: boolean) =>
      change(() => {
        const { [debt.document.id]: own, ...others } = rows;
        if (!ticked) return setRows(others);
        const { left } = readReceipt(head, parts, others, reading);
        const whole = wholeProposal(debt, on);
        keepRow(debt, rowOf(left > 0n && left < whole.money ? proposalFor(debt, left, on) : whole, currency, own));
      }),
    tickAll: () =>
      change(() =>
        setRows(
          Object.fromEntries(
            debts.map((debt) => [debt.document.id, rowOf(wholeProposal(debt, on), currency, rowFor(debt))]),
          ),
        ),
      ),
    tickNone: () => change(() => setRows({})),
    typeCell: (debt: Debt, cell: 'money' | 'discount' | 'difference', text: string) =>
      change(() => {
        const row = { ...rowFor(debt), [cell]: text };
        const amount = cell === 'money' ? readTypedMoney(text, currency) : null;
        keepRow(debt, amount === null ? row : { ...rowOf(proposalFor(debt, amount, on), currency, row), money: text });
      }),
    typeWithheld: (debt: Debt, typeId: string, text: string) =>
      change(() => {
        const row = rowFor(debt);
        keepRow(debt, { ...row, withheld: { ...row.withheld, [typeId]: text } });
      }),
    errorAt: (path: string): string | undefined => {
      const found = refusals.find((refusal) => refusal.path === path);
      return found && wordRefusal(found);
    },
  };
}

export type TypedReceipt = ReturnType<typeof useTypedReceipt>;
