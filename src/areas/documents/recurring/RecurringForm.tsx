'use client';

import { toast } from 'sonner';
import {
  datesFrom,
  RECURRING_DOES,
  RECURRING_PLACEHOLDERS,
  type Recurring,
  recurringSchema,
  restAfter,
} from '@/core/documents/recurring';
import { RHYTHM_UNITS } from '@/core/documents/rhythm';
import { type IsoDate, isIsoDate, writeDate } from '@/core/kernel/date';
import { allOf } from '@/store/records';
import { keepRecurring } from '@/store/sales/actions/recurring';
import { allGroups } from '@/store/sales/queries/runs';
import { CheckField } from '@/ui/CheckField';
import { ChoiceField, TextField } from '@/ui/Field';
import { DateField } from '../../shared/DateField';
import { FormFoot } from '../../shared/FormFoot';
import { RowsField } from '../../shared/RowsField';
import { typedDay } from '../../shared/typedDay';
import { useActionForm } from '../../shared/useActionForm';
import { act, useBook } from '../../shell/book';
import { DOES_WORDS } from './recurringWords';

/** As the form holds it: counts as text, days as typed. */
interface Typed {
  readonly name: string;
  readonly every: string;
  readonly unit: Recurring['rhythm']['unit'];
  readonly lastDay: boolean;
  readonly first: string;
  readonly end: 'never' | 'on' | 'times';
  readonly until: string;
  readonly times: string;
  readonly does: Recurring['does'];
  readonly priceChanges: { from: string; percent: string; priceListId: string }[];
  readonly skipped: string[];
  readonly paused: boolean;
  /** Empty for the customer of its draft. */
  readonly groupId: string;
}

const typedOf = (of: Recurring): Typed => {
  const { name, rhythm, first, until, times, does, priceChanges, skipped, paused, groupId = '' } = of;
  return {
    name,
    every: String(rhythm.every),
    unit: rhythm.unit,
    lastDay: rhythm.lastDay,
    first,
    end: until !== '' ? 'on' : times > 0 ? 'times' : 'never',
    until,
    times: times > 0 ? String(times) : '12',
    does,
    priceChanges: priceChanges.map((change) => ({ ...change })),
    skipped: [...skipped],
    paused,
    groupId,
  };
};

function recurringOf(id: string, typed: Typed): Recurring {
  const { name, every, unit, lastDay, first, end, until, times, does, priceChanges, skipped, paused, groupId } = typed;
  return {
    id,
    name: name.trim(),
    rhythm: { unit, every: Number(every), lastDay },
    first: typedDay(first) as IsoDate,
    until: end === 'on' ? (typedDay(until) as IsoDate) : '',
    times: end === 'times' ? Number(times) : 0,
    does,
    priceChanges: priceChanges.map((change) => ({ ...change, from: typedDay(change.from) as IsoDate })),
    skipped: skipped as IsoDate[],
    paused,
    nextDue: '',
    ...(groupId !== '' && { groupId }),
  };
}

const AHEAD = 12;

interface RecurringFormProps {
  readonly recurring: Recurring;
  /** Name of the customer of its draft; empty for none. */
  readonly customer: string;
  /** Empty where nothing was made. */
  readonly lastMade: IsoDate | '';
}

/** When it comes, how long, and what is done then. */
export function RecurringForm({ recurring, customer, lastMade }: RecurringFormProps) {
  const groups = useBook(allGroups) ?? [];
  const lists = useBook((db) => allOf(db, 'priceLists')) ?? [];
  const { form, submit, field, errorAt, general, busy } = useActionForm<Typed, Recurring>({
    initial: typedOf(recurring),
    schema: recurringSchema,
    recordOf: (typed) => recurringOf(recurring.id, typed),
    run: (typed) => act(keepRecurring, recurringOf(recurring.id, typed)),
    onDone: (_, { nextDue }) =>
      void toast(nextDue === '' ? 'It is saved' : `It is saved: next on ${writeDate(nextDue)}`),
  });
  const typed = form.watch();
  const now = recurringOf(recurring.id, typed);
  const readable = isIsoDate(now.first) && now.rhythm.every >= 1 && (now.until === '' || isIsoDate(now.until));
  const dates = readable ? datesFrom(now, restAfter(now.first, lastMade), AHEAD) : [];
  return (
    <form onSubmit={submit} noValidate>
      <div className="grid grid-cols-[1fr_260px] items-start gap-x-4">
        <TextField label="Name" {...field('name')} />
        <ChoiceField
          label="For"
          options={[
            ['', customer === '' ? 'the customer of its draft' : customer],
            ...groups.map(({ id, name }) => [id, `group: ${name}`] as const),
          ]}
          {...field('groupId')}
        />
      </div>
      {typed.groupId !== '' && (
        <p className="-mt-2 mb-3 text-soft text-sm">
          Each date becomes a run for everybody who belongs to the group that day.
        </p>
      )}
      <div className="grid grid-cols-[80px_140px_170px_1fr] items-start gap-x-4">
        <TextField label="Every" inputMode="numeric" {...field('every')} error={errorAt('rhythm.every')} />
        <ChoiceField
          label="Rhythm"
          options={RHYTHM_UNITS.map((unit) => [unit, typed.every === '1' ? unit : `${unit}s`] as const)}
          {...field('unit')}
        />
        <DateField label="First date" {...field('first')} />
        {(typed.unit === 'month' || typed.unit === 'year') && (
          <div className="pt-5">
            <CheckField label="always the last day of the month" {...form.register('lastDay')} />
          </div>
        )}
      </div>
      <div className="grid grid-cols-[180px_170px_1fr] items-start gap-x-4">
        <ChoiceField
          label="Ends"
          options={[
            ['never', 'never'],
            ['on', 'on a date'],
            ['times', 'after a number of times'],
          ]}
          {...field('end')}
        />
        {typed.end === 'on' && <DateField label="Last day" {...field('until')} />}
        {typed.end === 'times' && <TextField label="Times" inputMode="numeric" {...field('times')} />}
        <ChoiceField
          label="When it is due"
          options={RECURRING_DOES.map((one) => [one, DOES_WORDS[one]] as const)}
          {...field('does')}
        />
      </div>
      <p className="mb-3 text-soft text-sm">
        In its texts {RECURRING_PLACEHOLDERS.map((name) => `{${name}}`).join(', ')} stand for the days of each document.
      </p>
      <h2 className="mt-1 font-semibold font-serif">Price changes</h2>
      <RowsField
        form={form}
        name="priceChanges"
        what="price change"
        columns={[
          { field: 'from', label: 'From', width: '140px' },
          { field: 'percent', label: 'Percent', width: '100px' },
          {
            field: 'priceListId',
            label: 'Or the prices of',
            width: '1fr',
            options: [['', 'no list'], ...lists.map(({ id, name }) => [id, name] as const)],
          },
        ]}
        blank={{ from: '', percent: '', priceListId: '' }}
        errorAt={errorAt}
      />
      <fieldset className="mb-3">
        <legend className="font-semibold font-serif">Next dates</legend>
        <div className="flex flex-wrap gap-x-5">
          {dates.map(({ date }) => (
            <label key={date} className="cursor-pointer">
              <input
                type="checkbox"
                className="accent-rust"
                checked={!typed.skipped.includes(date)}
                onChange={({ target: { checked } }) =>
                  form.setValue(
                    'skipped',
                    checked ? typed.skipped.filter((one) => one !== date) : [...typed.skipped, date],
                    { shouldDirty: true },
                  )
                }
              />{' '}
              {writeDate(date)}
            </label>
          ))}
        </div>
        <p className="text-soft text-sm">Untick a date to skip it.</p>
      </fieldset>
      <CheckField label="Paused: nothing is made until this is unticked" {...form.register('paused')} />
      <FormFoot label="Save the recurring document" busy={busy} general={general} />
    </form>
  );
}
