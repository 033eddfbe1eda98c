'use client';

import { useFieldArray } from 'react-hook-form';
import { decimal } from '@/core/kernel/decimal';
import { type TaxCode, taxCodeSchema } from '@/core/tax/taxCode';
import { changeTaxCode } from '@/store/actions/setup';
import { Button } from '@/ui/Button';
import { AreaField, ChoiceField, TextField } from '@/ui/Field';
import { act, today } from '../shell/book';
import { CATEGORY_CHOICES } from './choices';
import { FormFoot } from './FormFoot';
import { useRecordForm } from './useRecordForm';

interface TaxCodeFormProps {
  /** The code to change; a new one when left out. */
  readonly code?: TaxCode;
  readonly onSaved: (id: string) => void;
}

/** One tax code with its dated rates. */
export function TaxCodeForm({ code, onSaved }: TaxCodeFormProps) {
  const isNew = code === undefined;
  const { form, submit, field, errorAt, general } = useRecordForm<TaxCode>(
    taxCodeSchema,
    code ?? {
      id: '',
      name: '',
      category: 'S',
      taxClass: '',
      legend: '',
      exemptionCode: '',
      rates: [{ from: today(), percent: decimal('0') }],
    },
    (value) => act(changeTaxCode, { code: value, isNew }),
    ({ id }) => onSaved(id),
  );
  const rates = useFieldArray({ control: form.control, name: 'rates' });
  return (
    <form onSubmit={submit} noValidate>
      <div className="grid grid-cols-[1fr_2fr_2fr] gap-x-4">
        <TextField label="Code" readOnly={!isNew} {...field('id')} />
        <TextField label="Name, as it prints" {...field('name')} />
        <ChoiceField label="Category" options={CATEGORY_CHOICES} {...field('category')} />
      </div>
      <TextField
        label="Taken by itself for items of the class"
        hint="Such as standard; empty when it is chosen by hand or for a customer"
        {...field('taxClass')}
      />
      <AreaField
        label="Words the document must carry"
        hint="For exempt, reverse charge, intra-community and export"
        {...field('legend')}
      />
      <TextField
        label="Exemption reason code"
        hint="Of the VATEX list, such as VATEX-EU-AE"
        {...field('exemptionCode')}
      />
      <h2 className="mt-3 mb-1 font-semibold font-serif">Rates by date</h2>
      <p className="mb-2 text-soft text-sm">
        A rate holds from its day until the next one begins. The tax point of a document chooses.
      </p>
      {rates.fields.map((rate, i) => (
        <div key={rate.id} className="grid grid-cols-[160px_120px_auto] items-start gap-x-4">
          <TextField label="From" {...field(`rates.${i}.from`)} error={errorAt(`rates[${i}].from`)} />
          <TextField
            label="Percent"
            inputMode="decimal"
            {...field(`rates.${i}.percent`)}
            error={errorAt(`rates[${i}].percent`)}
          />
          {rates.fields.length > 1 && (
            <Button
              weight="quiet"
              className="mt-[18px]"
              onClick={() => rates.remove(i)}
              aria-label={`Take out rate ${i + 1}`}
            >
              Take out
            </Button>
          )}
        </div>
      ))}
      <p className="text-brick text-sm">{errorAt('rates')}</p>
      <Button weight="quiet" onClick={() => rates.append({ from: today(), percent: decimal('0') })}>
        One more rate
      </Button>
      <FormFoot label={`Keep ${code?.name ?? 'the tax code'}`} busy={form.formState.isSubmitting} general={general} />
    </form>
  );
}
