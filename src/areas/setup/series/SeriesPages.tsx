'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { SeriesInput } from '@/core/decisions/setup/series';
import { newSeries, nextNumber, type Series, type SeriesKind, seriesSchema } from '@/core/documents/series';
import { allOf, recordOf } from '@/store/records';
import { keepSeries } from '@/store/sales/actions/views';
import { unchanged } from '@/store/setup/actions/unchanged';
import { CheckField } from '@/ui/CheckField';
import { ChoiceField, TextField } from '@/ui/Field';
import { FormFoot } from '../../shared/FormFoot';
import { RecordLink, RecordList, RecordPage } from '../../shared/RecordList';
import { useRecordForm } from '../../shared/useActionForm';
import { useOpenBook } from '../../shell/BookContext';
import { act, today, useBook } from '../../shell/book';
import { routes } from '../../shell/routes';

const KIND_NAMES: Readonly<Record<SeriesKind, string>> = {
  quote: 'Quotes',
  invoice: 'Invoices',
  'credit-note': 'Credit notes',
  takings: 'Takings',
  opening: 'Opening invoices',
  receipt: 'Receipts',
  refund: 'Refunds',
};

/** How each kind of document is numbered. */
export function SeriesList() {
  const { registrations } = useOpenBook();
  const rows = useBook((db) => allOf(db, 'series'));
  const nameOf = (id: string) => (id === '' ? 'all' : (registrations.find((r) => r.id === id)?.name ?? id));
  return (
    <RecordList
      title="Numbers"
      path={routes.section('numbers')}
      addLabel="New series for a registration"
      rows={rows}
      keyOf={(row) => row.id}
      empty="No series yet."
      columns={[
        {
          head: 'Documents',
          value: (row) => KIND_NAMES[row.kind],
          cell: (row) => <RecordLink path={routes.record('numbers', row.id)}>{KIND_NAMES[row.kind]}</RecordLink>,
        },
        { head: 'Registration', cell: (row) => nameOf(row.registrationId) },
        { head: 'Restarts', cell: (row) => (row.yearly ? 'each year' : 'never') },
        { head: 'Numbered', align: 'right', cell: (row) => row.count },
        { head: 'Next today', align: 'right', cell: (row) => nextNumber(row, today()) },
      ]}
    />
  );
}

export function SeriesPage({ id }: { readonly id: string }) {
  const router = useRouter();
  const series = useBook((db) => recordOf(db, 'series', id), [id]);
  return (
    <RecordPage id={id} record={series} what="series" nameOf={(s) => KIND_NAMES[s.kind]}>
      {(known) => (
        <SeriesForm {...(known && { series: known })} onSaved={() => router.push(routes.section('numbers'))} />
      )}
    </RecordPage>
  );
}

/** Digits and start are typed; the record holds numbers. */
type Typed = Omit<SeriesInput, 'digits' | 'start'> & { readonly digits: string; readonly start: string };

function inputOf(value: Typed, isNew: boolean): SeriesInput {
  const number = (text: string) => (/^\d+$/.test(text.trim()) ? Number(text) : Number.NaN);
  const id = isNew ? `${value.kind}|${value.registrationId}` : value.id;
  return { ...value, id, digits: number(value.digits), start: number(value.start) };
}

function SeriesForm({ series, onSaved }: { readonly series?: Series; readonly onSaved: () => void }) {
  const { registrations } = useOpenBook();
  const isNew = series === undefined;
  const [initial] = useState<Typed>(() => {
    const { id, kind, registrationId, prefix, digits, yearly, start } =
      series ?? newSeries('invoice', '', { registrationId: registrations[0]?.id ?? '' });
    return { id, kind, registrationId, prefix, yearly, digits: String(digits), start: String(start) };
  });
  const [began] = useState(series);
  const { form, submit, field, general } = useRecordForm<Typed>(
    seriesSchema,
    initial,
    (value) => act(unchanged(keepSeries, 'series', began), inputOf(value, isNew)),
    onSaved,
    (value) => inputOf(value, isNew),
  );
  return (
    <form onSubmit={submit} noValidate>
      {isNew && (
        <div className="grid grid-cols-2 gap-x-4">
          <ChoiceField
            label="Documents"
            options={Object.entries(KIND_NAMES).filter(([kind]) => kind !== 'opening')}
            {...field('kind')}
          />
          <ChoiceField
            label="Registration with numbers of its own"
            options={registrations.map(({ id, name }) => [id, name] as const)}
            {...field('registrationId')}
          />
        </div>
      )}
      <div className="grid grid-cols-3 gap-x-4">
        <TextField label="Prefix" hint="The number begins with it: INV-2026-0001" {...field('prefix')} />
        <TextField label="Digits at least" inputMode="numeric" {...field('digits')} />
        <TextField
          label="First number"
          inputMode="numeric"
          hint={
            isNew || series.count === 0 ? 'To continue from earlier books' : 'Fixed: documents are already numbered'
          }
          {...field('start')}
        />
      </div>
      <CheckField
        label="Numbering restarts each year, and the year is part of the number"
        {...form.register('yearly')}
      />
      <p className="text-soft text-sm">
        Numbers follow each other without gaps: a number is given in the same step that seals the document.
      </p>
      <FormFoot label="Save the numbering" busy={form.formState.isSubmitting} general={general} />
    </form>
  );
}
