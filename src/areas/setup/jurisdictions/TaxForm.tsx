'use client';

import { useState } from 'react';
import { type Tax, taxSchema } from '@/core/tax/tax';
import { keepTax } from '@/store/setup/actions/taxSetup';
import { unchanged } from '@/store/setup/actions/unchanged';
import { TextField } from '@/ui/Field';
import { FormFoot } from '../../shared/FormFoot';
import { RowsField } from '../../shared/RowsField';
import { useRecordForm } from '../../shared/useActionForm';
import { act, today } from '../../shell/book';
import { RateTimeline } from './RateTimeline';

interface TaxFormProps {
  /** The tax to change; a new one when left out. */
  readonly tax?: Tax;
  readonly jurisdictionId: string;
  readonly onSaved: () => void;
}

/** One tax of a jurisdiction with its dated rates. */
export function TaxForm({ tax, jurisdictionId, onSaved }: TaxFormProps) {
  const isNew = tax === undefined;
  const [began] = useState(tax);
  const { form, submit, field, errorAt, general } = useRecordForm<Tax>(
    taxSchema,
    tax ?? { id: '', jurisdictionId, name: '', rates: [] },
    (value) => act(unchanged(keepTax, 'taxes', began), { value, isNew }),
    onSaved,
  );
  return (
    <form onSubmit={submit} noValidate>
      <div className="grid grid-cols-[1fr_2fr] gap-x-4">
        <TextField label="Short code of the tax" hint="Such as IE-VAT" readOnly={!isNew} {...field('id')} />
        <TextField label="Name of the tax" hint="Such as VAT or sales tax" {...field('name')} />
      </div>
      <RateTimeline rates={tax?.rates ?? []} day={today()} />
      <p className="mb-2 text-soft text-sm">
        A rate holds from its day until the next one of its class begins, or its last day. One that documents rest on is
        ended, never taken out. An empty class stands for every class without a rate of its own.
      </p>
      <RowsField
        form={form}
        name="rates"
        what="rate"
        columns={[
          { field: 'taxClass', label: 'Class', width: '1fr' },
          { field: 'from', label: 'From', width: '96px' },
          { field: 'until', label: 'Valid until', width: '96px' },
          { field: 'percent', label: 'Percent', width: '64px' },
          { field: 'perUnit', label: 'Per unit', width: '64px' },
          { field: 'source', label: 'Legal source', width: '1.5fr' },
        ]}
        blank={{ taxClass: 'standard', from: today(), until: '', percent: '', perUnit: '', source: '' }}
        errorAt={errorAt}
      />
      <FormFoot label={`Save ${tax?.name ?? 'the tax'}`} busy={form.formState.isSubmitting} general={general} />
    </form>
  );
}
