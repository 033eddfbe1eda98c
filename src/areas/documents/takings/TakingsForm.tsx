'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { toast } from 'sonner';
import type { TakingsInput } from '@/core/decisions/sales/takings';
import { type Minor, NOTHING, total } from '@/core/kernel/money';
import type { Refusal } from '@/core/kernel/result';
import { PAYMENT_METHODS, type PaymentMethod } from '@/core/parties/paymentMethod';
import { readTypedDate } from '@/core/parties/terms';
import { readTypedMoney } from '@/core/receipts/receipt';
import { chargesNothing, plainName } from '@/core/tax/taxCode';
import { codesUnder } from '@/core/tax/taxSetup';
import { wordRefusal, wordRefusals } from '@/core/wording/refusals';
import { enterTakings } from '@/store/sales/actions/takings';
import { Button } from '@/ui/Button';
import { ChoiceField, TextField } from '@/ui/Field';
import { Money } from '@/ui/Money';
import { Sheet, SheetTitle } from '@/ui/Page';
import { DateField } from '../../shared/DateField';
import { useOpenBook } from '../../shell/BookContext';
import { act, today } from '../../shell/book';
import { KEY_MAP } from '../../shell/keyMap';
import { routes } from '../../shell/routes';
import { useKey } from '../../shell/useKey';

/** A day's till total by tax code, tax inside. No invoice is made of it. */
export function TakingsForm() {
  const router = useRouter();
  const { records, accounts, registration, registrations, currency } = useOpenBook();
  const income = accounts.filter((account) => account.type === 'income' && account.role === '');
  const [registrationId, setRegistrationId] = useState(registration.id);
  // A till takes the taxes of the territory it stands in.
  const under = registrations.find((r) => r.id === registrationId) ?? registration;
  const offered = codesUnder(under, records).filter((code) => !chargesNothing(code.category) || code.category === 'Z');
  const [date, setDate] = useState('today');
  const [paidBy, setPaidBy] = useState<PaymentMethod>('cash');
  const [note, setNote] = useState('');
  const [amounts, setAmounts] = useState<Readonly<Record<string, string>>>({});
  const [account, setAccount] = useState(income[0]?.code ?? '');
  const [refusals, setRefusals] = useState<readonly Refusal[]>([]);
  const [busy, setBusy] = useState(false);

  const sum = total(offered.map(({ id }): Minor => readTypedMoney(amounts[id] ?? '', currency) ?? NOTHING));
  const record = async () => {
    if (busy) return;
    setBusy(true);
    try {
      const input: TakingsInput = {
        registrationId,
        date: readTypedDate(date, today(), today()) ?? date,
        paidBy,
        note,
        rows: offered.map(({ id }) => ({ taxCode: id, amount: amounts[id] ?? '', account })),
      };
      const result = await act(enterTakings, input);
      if (!result.ok) return setRefusals(result.refusals);
      toast(`${result.value.number} is entered`);
      router.push(routes.document(result.value.id));
    } finally {
      setBusy(false);
    }
  };
  useKey('main', () => void record());
  const errorAt = (path: string) => {
    const found = refusals.find((refusal) => refusal.path === path);
    return found && wordRefusal(found);
  };
  const placed = new Set(['date', ...offered.map((_, i) => `rows[${i}].amount`)]);
  const others = refusals.filter((refusal) => !placed.has(refusal.path));
  return (
    <Sheet label="Takings">
      <SheetTitle>Takings</SheetTitle>
      <p className="mb-3 text-soft">What the till took on a day, with the tax in it. It prints no tax invoice.</p>
      <form
        className="flex flex-1 flex-col"
        onSubmit={(event) => {
          event.preventDefault();
          void record();
        }}
      >
        <div className="grid grid-cols-4 gap-x-4">
          <DateField
            label="Day"
            autoFocus
            value={date}
            error={errorAt('date')}
            onChange={(e) => setDate(e.target.value)}
          />
          <ChoiceField
            label="Taken"
            options={PAYMENT_METHODS.map((method) => [method, method] as const)}
            value={paidBy}
            onChange={(e) => setPaidBy(e.target.value as PaymentMethod)}
          />
          <ChoiceField
            label="Income account"
            options={income.map(({ code, name }) => [code, `${code} ${name}`] as const)}
            value={account}
            onChange={(e) => setAccount(e.target.value)}
          />
          {registrations.length > 1 && (
            <ChoiceField
              label="Reported under"
              options={registrations.map(({ id, name }) => [id, name] as const)}
              value={registrationId}
              onChange={(e) => setRegistrationId(e.target.value)}
            />
          )}
        </div>
        <div className="mt-2 grid grid-cols-3 gap-x-4">
          {offered.map((code, i) => (
            <TextField
              key={code.id}
              label={`${code.id} ${plainName(code)}, ${currency} with tax`}
              inputMode="decimal"
              value={amounts[code.id] ?? ''}
              error={errorAt(`rows[${i}].amount`)}
              onChange={(e) => {
                setAmounts({ ...amounts, [code.id]: e.target.value });
                setRefusals([]);
              }}
            />
          ))}
        </div>
        <TextField label="Note" value={note} onChange={(e) => setNote(e.target.value)} />
        <p className="sum-rule ml-auto flex w-[260px] justify-between px-1.5 py-1 font-semibold text-lg">
          Taken <Money amount={sum} currency={currency} withCode />
        </p>
        <div className="mt-auto pt-6">
          {others.length > 0 && (
            <p role="alert" className="mb-3 text-brick">
              ▲ {wordRefusals(others)}
            </p>
          )}
          <Button weight="main" type="submit" disabled={busy} title={KEY_MAP.main.shown}>
            Enter the takings
          </Button>
        </div>
      </form>
    </Sheet>
  );
}
