'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { toast } from 'sonner';
import { type Minor, minor, total } from '@/core/kernel/money';
import type { Refusal } from '@/core/kernel/result';
import { outputAccountOf } from '@/core/ledger/posting/taxAccounts';
import { readTypedDate } from '@/core/parties/terms';
import { moneySample, readTypedMoney } from '@/core/receipts/receipt';
import { wordRefusal, wordRefusals } from '@/core/wording/refusals';
import { writeJournal } from '@/store/ledger/actions/writeJournal';
import { Button } from '@/ui/Button';
import { ChoiceField, TextField } from '@/ui/Field';
import { Mark } from '@/ui/Mark';
import { Money } from '@/ui/Money';
import { Sheet, SheetTitle } from '@/ui/Page';
import { DateField } from '../shared/DateField';
import { useOpenBook } from '../shell/BookContext';
import { act, today } from '../shell/book';
import { KEY_MAP } from '../shell/keyMap';
import { routes } from '../shell/routes';
import { useKey } from '../shell/useKey';

interface TypedSide {
  readonly account: string;
  readonly debit: string;
  readonly credit: string;
}

const BLANK: TypedSide = { account: '', debit: '', credit: '' };

/** A manual journal. It must balance, and says so when it touches the tax account. */
export function WriteJournal() {
  const router = useRouter();
  const { accounts, registrations, currency } = useOpenBook();
  const [date, setDate] = useState('today');
  const [text, setText] = useState('');
  const [typed, setTyped] = useState<readonly TypedSide[]>([BLANK, BLANK]);
  const [refusals, setRefusals] = useState<readonly Refusal[]>([]);

  const read = (value: string) => (value.trim() === '' ? (0n as Minor) : readTypedMoney(value, currency));
  const sides = typed.map((side) => {
    const [debit, credit] = [read(side.debit), read(side.credit)];
    return { account: side.account, amount: debit === null || credit === null ? null : minor(debit - credit) };
  });
  const difference = total(sides.map((side) => side.amount ?? minor(0n)));
  const touched = new Set(typed.map((side) => side.account));
  const warnings = [
    [
      registrations.map((registration) => outputAccountOf(registration, accounts)),
      'This touches an output tax account: the reconciliation names it in each period until another journal clears it.',
    ],
    [
      accounts.filter(({ role }) => role === 'receivables').map(({ code }) => code),
      'This touches receivables, but no customer’s open item: the ledger will differ from what customers owe. Use a receipt, a credit note or an opening item instead.',
    ],
    [
      accounts.filter(({ role }) => ['bank', 'cash', 'card'].includes(role)).map(({ code }) => code),
      'This touches an account that holds money: money from customers belongs in a receipt.',
    ],
  ] as const;
  const told = warnings.filter(([codes]) => codes.some((code) => touched.has(code))).map(([, words]) => words);

  const change = (index: number, patch: Partial<TypedSide>) => {
    setRefusals([]);
    setTyped(typed.map((side, i) => (i === index ? { ...side, ...patch } : side)));
  };
  const write = async () => {
    const unread = sides.flatMap((side, i) =>
      side.amount === null
        ? [
            {
              code: 'invalid' as const,
              path: `sides[${i}].amount`,
              wanted: { what: 'money-such-as' as const, sample: moneySample(currency) },
            },
          ]
        : [],
    );
    if (unread.length > 0) return setRefusals(unread);
    const day = readTypedDate(date, today(), today()) ?? date;
    const result = await act(writeJournal, {
      date: day,
      text,
      sides: sides.map((s) => ({ account: s.account, amount: s.amount ?? minor(0n) })),
    });
    if (!result.ok) return setRefusals(result.refusals);
    toast('The journal is written');
    router.push(routes.entry(result.value.id));
  };
  useKey('main', () => void write());
  const errorAt = (path: string) => {
    const found = refusals.find((refusal) => refusal.path === path);
    return found && wordRefusal(found);
  };
  const general = refusals.filter((refusal) => refusal.path === 'sides' || refusal.path === '');
  return (
    <Sheet label="Write a journal">
      <SheetTitle>Journal</SheetTitle>
      <div className="grid grid-cols-[1fr_3fr] gap-x-4">
        <DateField
          label="Date"
          value={date}
          error={errorAt('date')}
          onChange={(e) => {
            setRefusals([]);
            setDate(e.target.value);
          }}
        />
        <TextField
          label="What it is for"
          value={text}
          error={errorAt('text')}
          onChange={(e) => {
            setRefusals([]);
            setText(e.target.value);
          }}
        />
      </div>
      {typed.map((side, i) => (
        <div key={i} className="grid grid-cols-[2fr_1fr_1fr] gap-x-4">
          <ChoiceField
            label={`Account ${i + 1}`}
            options={[['', 'choose…'], ...accounts.map((a) => [a.code, `${a.code} ${a.name}`] as const)]}
            value={side.account}
            error={errorAt(`sides[${i}].account`)}
            onChange={(e) => change(i, { account: e.target.value })}
          />
          <TextField
            label="Debit"
            inputMode="decimal"
            value={side.debit}
            error={errorAt(`sides[${i}].amount`)}
            onChange={(e) => change(i, { debit: e.target.value })}
          />
          <TextField
            label="Credit"
            inputMode="decimal"
            value={side.credit}
            onChange={(e) => change(i, { credit: e.target.value })}
          />
        </div>
      ))}
      <div className="flex items-center justify-between">
        <Button weight="quiet" onClick={() => setTyped([...typed, BLANK])}>
          One more line
        </Button>
        <span className="text-soft">
          Debits less credits <Money amount={difference} currency={currency} className="ml-2 text-ink" />
        </span>
      </div>
      {told.map((words) => (
        <p key={words} className="mt-3">
          <Mark kind="warning" /> {words}
        </p>
      ))}
      <div className="mt-auto pt-6">
        {general.length > 0 && (
          <p role="alert" className="mb-3 text-brick">
            ▲ {wordRefusals(general)}
          </p>
        )}
        <Button weight="main" onClick={write} title={KEY_MAP.main.shown}>
          Write the journal
        </Button>
      </div>
    </Sheet>
  );
}
