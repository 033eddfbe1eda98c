'use client';

import { toast } from 'sonner';
import { type OpenAccountsMaterial, openableAccounts } from '@/core/decisions/ledger/openAccounts';
import { NOTHING, negated } from '@/core/kernel/money';
import type { Account } from '@/core/ledger/account';
import { stateOpeningBalances } from '@/store/ledger/actions/openAccounts';
import { openingBalances } from '@/store/ledger/queries/openingBalances';
import { TextField } from '@/ui/Field';
import Link from '@/ui/Link';
import { Money } from '@/ui/Money';
import { Sheet, SheetTitle } from '@/ui/Page';
import { DateField } from '../shared/DateField';
import { FormFoot } from '../shared/FormFoot';
import { typedDay } from '../shared/typedDay';
import { useActionForm } from '../shared/useActionForm';
import { useOpenBook } from '../shell/BookContext';
import { act, today, useBook } from '../shell/book';
import { routes } from '../shell/routes';
import { differenceOf, readSides, typedSide } from './typedSides';

/** What accounts stood at when the book was moved in. */
export function OpeningScreen() {
  const material = useBook(openingBalances);
  return (
    <Sheet label="Opening balances">
      <SheetTitle>Opening balances</SheetTitle>
      <p className="mb-4 max-w-[64ch] text-soft">
        What each account stood at when this book was begun, against Opening balances. Receivables come from{' '}
        <Link href={routes.section('csv')} className="underline underline-offset-4">
          opening invoices
        </Link>
        , money from each{' '}
        <Link href={routes.section('bank-accounts')} className="underline underline-offset-4">
          bank account
        </Link>
        .
      </p>
      {material !== undefined && <OpeningForm material={material} accounts={openableAccounts(material)} />}
    </Sheet>
  );
}

interface OpeningFormProps {
  readonly material: OpenAccountsMaterial;
  readonly accounts: readonly Account[];
}

function OpeningForm({ material, accounts }: OpeningFormProps) {
  const { currency } = useOpenBook();
  const { form, submit, field, errorAt, general, busy } = useActionForm({
    initial: {
      date: `31 Dec ${Number(today().slice(0, 4)) - 1}`,
      sides: accounts.map(({ code }) => typedSide(material.stated.get(code) ?? NOTHING, currency)),
    },
    run: async ({ date, sides }) => {
      const amounts = readSides(sides, currency, (i) => `balances[${i}]`);
      if (!amounts.ok) return amounts;
      const balances = accounts.map(({ code }, i) => ({ account: code, amount: amounts.value[i] ?? NOTHING }));
      return act(stateOpeningBalances, { date: typedDay(date), balances });
    },
    onDone: () => {
      toast('The opening balances are posted');
    },
  });
  const difference = differenceOf(form.watch('sides'), currency);
  return (
    <form className="flex flex-1 flex-col" onSubmit={submit}>
      <DateField
        label="At the end of"
        className="w-[200px]"
        hint="The day before this book begins"
        {...field('date')}
      />
      <table className="mt-2 w-full">
        <caption className="sr-only">Opening balances by account</caption>
        <thead>
          <tr className="border-ink border-b text-left text-soft text-sm">
            <th scope="col" className="px-1.5 pb-1 font-normal">
              Account
            </th>
            <th scope="col" className="w-[160px] px-1.5 pb-1 font-normal">
              Debit
            </th>
            <th scope="col" className="w-[160px] px-1.5 pb-1 font-normal">
              Credit
            </th>
          </tr>
        </thead>
        <tbody>
          {accounts.map(({ code, name }, i) => (
            <tr key={code} className="border-rule border-b align-top">
              <th scope="row" className="px-1.5 py-2 text-left font-normal">
                <span className="text-soft">{code}</span> {name}
              </th>
              {(['debit', 'credit'] as const).map((side) => (
                <td key={side} className="px-1.5 py-1 [&_label]:sr-only">
                  <TextField
                    label={`${name}, ${side}`}
                    inputMode="decimal"
                    {...form.register(`sides.${i}.${side}`)}
                    error={side === 'debit' ? errorAt(`balances[${i}]`) : undefined}
                  />
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-2 text-right text-soft">
        To opening balances <Money amount={negated(difference)} currency={currency} className="ml-2 text-ink" />
      </p>
      <div className="mt-auto pt-4">
        <FormFoot label="Post the opening balances" busy={busy} general={general} />
      </div>
    </form>
  );
}
