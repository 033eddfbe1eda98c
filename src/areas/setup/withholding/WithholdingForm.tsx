'use client';

import { useState } from 'react';
import { CURRENCIES, type Currency } from '@/core/kernel/currency';
import { decimal } from '@/core/kernel/decimal';
import { type WithholdingType, withholdingTypeSchema } from '@/core/tax/withholding';
import { keepWithholdingType } from '@/store/setup/actions/taxSetup';
import { unchanged } from '@/store/setup/actions/unchanged';
import { CheckField } from '@/ui/CheckField';
import { ChoiceField, TextField } from '@/ui/Field';
import { FormFoot } from '../../shared/FormFoot';
import { RowsField } from '../../shared/RowsField';
import { useRecordForm } from '../../shared/useActionForm';
import { useOpenBook } from '../../shell/BookContext';
import { act, today } from '../../shell/book';

interface WithholdingFormProps {
  readonly type?: WithholdingType;
  readonly onSaved: () => void;
}

const blank = (currency: Currency): WithholdingType => ({
  id: '',
  name: '',
  base: 'net',
  rates: [],
  currency,
  thresholdDocument: decimal('0'),
  thresholdYear: decimal('0'),
  when: 'on-payment',
  certificate: true,
  source: '',
});

/** A tax that customers keep back: its base, dated rates and thresholds. */
export function WithholdingForm({ type, onSaved }: WithholdingFormProps) {
  const { currency } = useOpenBook();
  const isNew = type === undefined;
  const [began] = useState(type);
  const { form, submit, field, errorAt, general } = useRecordForm<WithholdingType>(
    withholdingTypeSchema,
    type ?? blank(currency),
    (value) => act(unchanged(keepWithholdingType, 'withholdingTypes', began), { value, isNew }),
    onSaved,
  );
  return (
    <form onSubmit={submit} noValidate>
      <div className="grid grid-cols-[1fr_2fr] gap-x-4">
        <TextField label="Short code" hint="Such as KE-WHVAT" readOnly={!isNew} {...field('id')} />
        <TextField label="Name" {...field('name')} />
      </div>
      <div className="grid grid-cols-2 gap-x-4">
        <ChoiceField
          label="Calculated on"
          options={[
            ['net', 'the net'],
            ['gross', 'the total with tax'],
            ['tax', 'the tax'],
          ]}
          {...field('base')}
        />
        <ChoiceField
          label="Withheld when"
          options={[
            ['on-payment', 'when the customer pays'],
            ['on-issue', 'already from the document'],
          ]}
          {...field('when')}
        />
        <TextField label="Threshold, for one document" hint="0 for none" {...field('thresholdDocument')} />
        <TextField
          label="Threshold, for a customer and year"
          hint="Reached by all documents of the calendar year"
          {...field('thresholdYear')}
        />
      </div>
      <ChoiceField
        label="Currency of the thresholds"
        options={CURRENCIES.map((code) => [code, code] as const)}
        {...field('currency')}
      />
      <CheckField label="A certificate of the customer is needed to claim it" {...form.register('certificate')} />
      <h2 className="mt-2 mb-1 font-semibold font-serif">Rates by date</h2>
      <RowsField
        form={form}
        name="rates"
        what="rate"
        columns={[
          { field: 'from', label: 'From', width: '140px' },
          { field: 'percent', label: 'Percent', width: '100px' },
        ]}
        blank={{ from: today(), percent: '' }}
        errorAt={errorAt}
      />
      <TextField label="Legal source, in a few words" {...field('source')} />
      <FormFoot label={`Save ${type?.name ?? 'the type'}`} busy={form.formState.isSubmitting} general={general} />
    </form>
  );
}
