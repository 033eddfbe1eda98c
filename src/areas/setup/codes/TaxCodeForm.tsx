'use client';

import { useState } from 'react';
import { LANGUAGES, type TaxCode, taxCodeSchema } from '@/core/tax/taxCode';
import { knownClasses } from '@/core/tax/taxSetup';
import { keepTaxCode } from '@/store/setup/actions/taxSetup';
import { unchanged } from '@/store/setup/actions/unchanged';
import { ChoiceField, TextField } from '@/ui/Field';
import { CATEGORY_CHOICES } from '../../shared/choices';
import { FormFoot } from '../../shared/FormFoot';
import { RowsField } from '../../shared/RowsField';
import { useRecordForm } from '../../shared/useActionForm';
import { useOpenBook } from '../../shell/BookContext';
import { act } from '../../shell/book';

interface TaxCodeFormProps {
  /** The code to change; a new one when left out. */
  readonly code?: TaxCode;
  readonly onSaved: (id: string) => void;
}

const BLANK: TaxCode = {
  id: '',
  name: '',
  category: 'S',
  components: [],
  legends: [],
  exemptionCode: '',
  boxBase: '',
  boxTax: '',
};

/** One tax code: the taxes it charges, or why it charges none. */
export function TaxCodeForm({ code, onSaved }: TaxCodeFormProps) {
  const { records } = useOpenBook();
  const isNew = code === undefined;
  const [began] = useState(code);
  const { form, submit, field, errorAt, general } = useRecordForm<TaxCode>(
    taxCodeSchema,
    code ?? BLANK,
    (value) => act(unchanged(keepTaxCode, 'taxCodes', began), { value, isNew }),
    ({ id }) => onSaved(id),
  );
  const nameOf = (id: string) => records.jurisdictions.find((j) => j.id === id)?.name ?? id;
  return (
    <form onSubmit={submit} noValidate>
      <div className="grid grid-cols-[1fr_2fr_2fr] gap-x-4">
        <TextField label="Code" readOnly={!isNew} {...field('id')} />
        <TextField label="Name, as printed" hint="{rate} is replaced by the rate in force" {...field('name')} />
        <ChoiceField label="Category" options={CATEGORY_CHOICES} {...field('category')} />
      </div>
      <h2 className="mt-2 mb-1 font-semibold font-serif">Taxes it charges</h2>
      <p className="mb-2 text-soft text-sm">
        The rate is that of the tax for the class on the tax point; it is set at its jurisdiction. Taxes of one family
        are rounded together, compound ones are charged on the base and the taxes before them.
      </p>
      <RowsField
        form={form}
        name="components"
        what="tax"
        ordered
        columns={[
          {
            field: 'taxId',
            label: 'Tax',
            width: '2fr',
            options: [
              ['', 'choose…'],
              ...records.taxes.map((tax) => [tax.id, `${nameOf(tax.jurisdictionId)}, ${tax.name}`] as const),
            ],
          },
          {
            field: 'taxClass',
            label: 'Class',
            width: '1fr',
            options: [['', 'every class'], ...knownClasses(records).map((name) => [name, name] as const)],
          },
          { field: 'family', label: 'Family', width: '90px' },
          { field: 'compound', label: 'Compound', width: '72px', kind: 'check' },
        ]}
        blank={{ taxId: '', taxClass: 'standard', family: '', compound: false }}
        errorAt={errorAt}
      />
      <h2 className="mt-2 mb-1 font-semibold font-serif">Words the document must carry</h2>
      <p className="mb-2 text-soft text-sm">
        For exempt, reverse charge, intra-community and export. The first is taken where a customer’s language is
        missing.
      </p>
      <RowsField
        form={form}
        name="legends"
        what="legend"
        columns={[
          { field: 'language', label: 'Language', width: '120px', options: Object.entries(LANGUAGES) },
          { field: 'text', label: 'Words', width: '1fr' },
        ]}
        blank={{ language: 'en', text: '' }}
        errorAt={errorAt}
      />
      <div className="grid grid-cols-3 gap-x-4">
        <TextField
          label="Exemption reason code"
          hint="Of the VATEX list, such as VATEX-EU-AE"
          {...field('exemptionCode')}
        />
        <TextField label="Box of the taxable amount" hint="On the return; empty for none" {...field('boxBase')} />
        <TextField label="Box of the tax" {...field('boxTax')} />
      </div>
      <FormFoot label={`Save ${code?.id ?? 'the tax code'}`} busy={form.formState.isSubmitting} general={general} />
    </form>
  );
}
