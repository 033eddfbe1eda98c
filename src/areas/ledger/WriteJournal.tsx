'use client';

import { useRouter, useSearchParams } from 'next/navigation';
import { useEffect, useRef } from 'react';
import { useFieldArray } from 'react-hook-form';
import { toast } from 'sonner';
import { NOTHING } from '@/core/kernel/money';
import { isOffered } from '@/core/ledger/account';
import type { JournalTemplate } from '@/core/ledger/journalTemplate';
import { outputAccountOf } from '@/core/ledger/posting/taxAccounts';
import { writeJournal } from '@/store/ledger/actions/writeJournal';
import { journalEntry } from '@/store/ledger/queries/ledger';
import { Button } from '@/ui/Button';
import { CheckField } from '@/ui/CheckField';
import { ChoiceField, TextField } from '@/ui/Field';
import { Mark } from '@/ui/Mark';
import { Money } from '@/ui/Money';
import { Sheet, SheetTitle } from '@/ui/Page';
import { DateField } from '../shared/DateField';
import { FormFoot } from '../shared/FormFoot';
import { typedDay } from '../shared/typedDay';
import { useActionForm } from '../shared/useActionForm';
import { useOpenBook } from '../shell/BookContext';
import { act, useBook } from '../shell/book';
import { KEY_MAP } from '../shell/keyMap';
import { routes } from '../shell/routes';
import { useKey } from '../shell/useKey';
import { JournalTemplates } from './JournalTemplates';
import { differenceOf, readSides, typedSide } from './typedSides';

const BLANK = { account: '', debit: '', credit: '' };

/** What of a template a journal that is written again has not. */
const NO_TEMPLATE: JournalTemplate = {
  ...{ id: '', name: '', text: '', sides: [], takenBack: false },
  ...{ repeat: null, madeUntil: '', nextDue: '' },
};

/** A manual journal. It must balance, and says so when it touches the tax account. */
export function WriteJournal() {
  const router = useRouter();
  const { accounts, registrations, currency } = useOpenBook();
  const { form, submit, field, errorAt, general, busy } = useActionForm({
    initial: { date: 'today', text: '', sides: [BLANK, BLANK], takenBack: false, name: '', months: '', until: '' },
    run: async ({ date, text, sides, takenBack, name, months, until }) => {
      const amounts = readSides(sides, currency, (i) => `sides[${i}].amount`);
      if (!amounts.ok) return amounts;
      return act(writeJournal, {
        date: typedDay(date),
        text,
        sides: sides.map(({ account }, i) => ({ account, amount: amounts.value[i] ?? NOTHING })),
        takenBack,
        ...((name.trim() !== '' || months !== '') && {
          keep: { name, months: Number(months), until: until.trim() === '' ? '' : typedDay(until) },
        }),
      });
    },
    onDone: (_, { id }) => {
      toast('The journal is posted');
      router.push(routes.entry(id));
    },
  });
  const { fields, append, replace } = useFieldArray({ control: form.control, name: 'sides' });
  const typed = form.watch('sides');
  const difference = differenceOf(typed, currency);
  const touched = new Set(typed.map((side) => side.account));
  const warnings = [
    [
      registrations.map((registration) => outputAccountOf(registration, accounts)),
      'This touches an output tax account: the reconciliation names it in each period until another journal clears it.',
    ],
    [
      accounts.filter(({ role }) => role === 'receivables').map(({ code }) => code),
      'This touches receivables, but no customer’s open item: the ledger will differ from what customers owe. Use a receipt, a credit note or an opening invoice instead.',
    ],
    [
      accounts.filter(({ role }) => ['bank', 'cash', 'card'].includes(role)).map(({ code }) => code),
      'This touches a bank or cash account: money from customers belongs in a receipt.',
    ],
  ] as const;
  const told = warnings.filter(([codes]) => codes.some((code) => touched.has(code))).map(([, words]) => words);

  const use = ({ text, sides, takenBack }: JournalTemplate) => {
    form.setValue('text', text, { shouldDirty: true });
    form.setValue('takenBack', takenBack);
    replace(sides.map(({ account, amount }) => ({ account, ...typedSide(amount, currency) })));
  };
  // A journal that is to be written again fills the form once it is there.
  const again = useSearchParams().get('like') ?? '';
  const like = useBook(async (db) => (again === '' ? [] : journalEntry(db, again)), [again]);
  const filled = useRef('');
  useEffect(() => {
    const [found] = like ?? [];
    if (found === undefined || filled.current === again) return;
    filled.current = again;
    use({ ...NO_TEMPLATE, text: found.entry.text, sides: found.lines });
  });

  useKey('main', () => void submit());
  return (
    <>
      <Sheet label="New journal">
        <SheetTitle>New journal</SheetTitle>
        <form className="flex flex-1 flex-col" onSubmit={submit}>
          <div className="grid grid-cols-[1fr_3fr] gap-x-4">
            <DateField label="Date" {...field('date')} />
            <TextField label="What it is for" {...field('text')} />
          </div>
          {fields.map(({ id }, i) => (
            <div key={id} className="grid grid-cols-[2fr_1fr_1fr] gap-x-4">
              <ChoiceField
                label={`Account ${i + 1}`}
                options={[
                  ['', 'choose…'],
                  ...accounts.filter(isOffered).map((a) => [a.code, `${a.code} ${a.name}`] as const),
                ]}
                {...field(`sides.${i}.account`)}
              />
              <TextField
                label="Debit"
                inputMode="decimal"
                {...form.register(`sides.${i}.debit`)}
                error={errorAt(`sides[${i}].amount`)}
              />
              <TextField label="Credit" inputMode="decimal" {...form.register(`sides.${i}.credit`)} />
            </div>
          ))}
          <div className="flex items-center justify-between">
            <Button weight="quiet" onClick={() => append(BLANK)}>
              Add line
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
          <CheckField label="Take it back on the first day of the next month" {...form.register('takenBack')} />
          <div className="mt-3 grid grid-cols-[2fr_1fr_1fr] gap-x-4">
            <TextField
              label="Keep as a template named"
              hint="Empty to keep none"
              {...field('name')}
              error={errorAt('keep.name')}
            />
            <ChoiceField
              label="Post it again"
              options={[
                ['', 'by hand'],
                ['1', 'each month'],
                ['3', 'every 3 months'],
                ['12', 'each year'],
              ]}
              {...field('months')}
            />
            <DateField label="Until" hint="Empty for no end" {...field('until')} error={errorAt('keep.until')} />
          </div>
          <div className="mt-auto">
            <FormFoot label="Post the journal" busy={busy} general={general} keys={KEY_MAP.main.shown} />
          </div>
        </form>
      </Sheet>
      <JournalTemplates onUse={use} />
    </>
  );
}
