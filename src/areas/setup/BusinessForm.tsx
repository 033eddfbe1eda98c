'use client';

import { useState } from 'react';
import type { Path } from 'react-hook-form';
import { toast } from 'sonner';
import { type Business, businessSchema } from '@/core/parties/business';
import { LOCAL_FORMS } from '@/core/parties/localAccount';
import { changeBusiness } from '@/store/setup/actions/setup';
import { ChoiceField, TextField } from '@/ui/Field';
import { SheetTitle } from '@/ui/Page';
import { AddressFields } from '../shared/AddressFields';
import { countryName } from '../shared/choices';
import { FormFoot } from '../shared/FormFoot';
import { useRecordForm } from '../shared/useActionForm';
import { useOpenBook } from '../shell/BookContext';
import { act } from '../shell/book';

const LOCAL_CHOICES = Object.entries(LOCAL_FORMS).map(
  ([kind, { called, countries }]) => [kind, `${called} (${countries.map(countryName).join(', ')})`] as const,
);

/** Who we are, and the account customers pay into. */
export function BusinessForm() {
  const { business } = useOpenBook();
  const [began, setBegan] = useState(business);
  const { form, submit, field, general } = useRecordForm<Business>(
    businessSchema,
    { ...business, local: business.local ?? { kind: '', code: '', number: '' } },
    (value) => act(changeBusiness, { value, before: began }),
    (value) => {
      setBegan(value);
      toast('The business is saved');
    },
  );
  return (
    <form onSubmit={submit} noValidate>
      <SheetTitle aside={`home currency ${business.homeCurrency}`}>Business</SheetTitle>
      <TextField label="Name" {...field('name')} />
      <AddressFields field={(part) => field(`address.${part}` as Path<Business>)} address={form.watch('address')} />
      <div className="grid grid-cols-3 gap-x-4">
        <TextField label="Company number" {...field('legalId')} />
        <TextField label="E-mail" type="email" {...field('email')} />
        <TextField label="Phone" {...field('phone')} />
      </div>
      <h2 className="mt-3 mb-1 font-semibold font-serif">Payment account</h2>
      <div className="grid grid-cols-[2fr_1fr_1.3fr] gap-x-4">
        <TextField label="IBAN" hint="Prints on invoices and goes into e-invoices" {...field('iban')} />
        <TextField label="BIC" {...field('bic')} />
        <TextField label="Creditor identifier" hint="For direct debits" {...field('creditorId')} />
      </div>
      <div className="grid grid-cols-3 gap-x-4">
        <ChoiceField
          label="Local account"
          options={[['', 'none'] as const, ...LOCAL_CHOICES]}
          {...field('local.kind')}
        />
        <TextField label="Branch code" hint="Sort code, BSB, routing number, IFSC…" {...field('local.code')} />
        <TextField label="Account number" {...field('local.number')} />
      </div>
      <h2 className="mt-3 mb-1 font-semibold font-serif">E-invoice address</h2>
      <div className="grid grid-cols-[1fr_2fr] gap-x-4">
        <TextField label="Scheme" hint="A number of the EAS list, such as 9935" {...field('endpoint.scheme')} />
        <TextField label="Id in that scheme" {...field('endpoint.id')} />
      </div>
      <FormFoot label="Save the business" busy={form.formState.isSubmitting} general={general} />
    </form>
  );
}
