'use client';

import { useState } from 'react';
import { toast } from 'sonner';
import type { Book } from '@/core/book/rows';
import type { Business } from '@/core/parties/business';
import { FIRST_REMINDER_RULES, type ReminderRules, reminderRulesSchema } from '@/core/parties/reminderRules';
import { changeBusiness } from '@/store/setup/actions/setup';
import { TextField } from '@/ui/Field';
import { SheetTitle } from '@/ui/Page';
import { FormFoot } from '../../shared/FormFoot';
import { RowsField } from '../../shared/RowsField';
import { useActionForm } from '../../shared/useActionForm';
import { useOpenBook } from '../../shell/BookContext';
import { act } from '../../shell/book';

/** As the form holds it: days as text. */
interface Typed {
  readonly levels: { days: string; fee: string }[];
  readonly interest: string;
  readonly law: string;
}

const rulesOf = ({ levels, interest, law }: Typed): ReminderRules => ({
  levels: levels.map(({ days, fee }) => ({ days: Number(days), fee: fee.trim() })),
  interest: interest.trim(),
  law,
});

/** When customers are reminded of what is overdue, and what it costs them. */
export function ReminderRulesForm() {
  const { business } = useOpenBook();
  const [began, setBegan] = useState<Business>(business);
  const rules = business.reminders ?? FIRST_REMINDER_RULES;
  const { form, submit, field, errorAt, general, busy } = useActionForm<Typed, Book>({
    initial: {
      levels: rules.levels.map(({ days, fee }) => ({ days: String(days), fee })),
      interest: rules.interest,
      law: rules.law,
    },
    schema: reminderRulesSchema,
    recordOf: rulesOf,
    run: (typed) => act(changeBusiness, { value: { ...began, reminders: rulesOf(typed) }, before: began }),
    onDone: (_, { business: saved }) => {
      setBegan(saved);
      toast('The reminders are saved');
    },
  });
  return (
    <form onSubmit={submit} noValidate>
      <SheetTitle aside="words of each: Setup, Words of messages">Reminders</SheetTitle>
      <p className="mb-2 text-soft text-sm">
        First, second and final reminder, each so many days after the due date. A customer can be left out on its
        record.
      </p>
      <RowsField
        form={form}
        name="levels"
        what="reminder"
        columns={[
          { field: 'days', label: 'Days after the due date', width: '200px' },
          { field: 'fee', label: `Fee, ${business.homeCurrency}`, width: '140px' },
        ]}
        blank={{ days: '', fee: '' }}
        errorAt={errorAt}
      />
      <div className="grid grid-cols-[180px_1fr] gap-x-4">
        <TextField
          label="Interest, percent a year"
          inputMode="decimal"
          hint="On what is overdue, by days of 365"
          {...field('interest')}
        />
        <TextField label="By which law or contract" {...field('law')} />
      </div>
      <FormFoot label="Save the reminders" busy={busy} general={general} />
    </form>
  );
}
