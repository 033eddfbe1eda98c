'use client';

import { useState } from 'react';
import type { Path } from 'react-hook-form';
import { toast } from 'sonner';
import { type Business, businessSchema } from '@/core/parties/business';
import { changeBusiness } from '@/store/setup/actions/setup';
import { TextField } from '@/ui/Field';
import { SheetTitle } from '@/ui/Page';
import { AddressFields } from '../shared/AddressFields';
import { FormFoot } from '../shared/FormFoot';
import { RowsField } from '../shared/RowsField';
import { useRecordForm } from '../shared/useActionForm';
import { useOpenBook } from '../shell/BookContext';
import { act } from '../shell/book';

/** Who we are. */
export function BusinessForm() {
  const { business } = useOpenBook();
  const [began, setBegan] = useState(business);
  const { form, submit, field, errorAt, general } = useRecordForm<Business>(
    businessSchema,
    {
      ...business,
      units: business.units ?? [],
      cards: business.cards ?? { page: '', surcharge: '' },
      mail: business.mail ?? { from: '', copyTo: '' },
    },
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
      <TextField
        label="Creditor identifier"
        hint="For direct debits"
        className="max-w-[320px]"
        {...field('creditorId')}
      />
      <h2 className="mt-3 mb-1 font-semibold font-serif">E-invoice address</h2>
      <div className="grid grid-cols-[1fr_2fr] gap-x-4">
        <TextField label="Scheme" hint="A number of the EAS list, such as 9935" {...field('endpoint.scheme')} />
        <TextField label="Id in that scheme" {...field('endpoint.id')} />
      </div>
      <h2 className="mt-3 mb-1 font-semibold font-serif">Messages</h2>
      <div className="grid grid-cols-2 gap-x-4">
        <TextField label="Come from" type="email" hint="Empty: the e-mail address above" {...field('mail.from')} />
        <TextField
          label="Copies to ourselves"
          type="email"
          hint="Kept as evidence; empty: the same"
          {...field('mail.copyTo')}
        />
      </div>
      <h2 className="mt-3 mb-1 font-semibold font-serif">Card payments</h2>
      <div className="grid grid-cols-[2fr_1fr] gap-x-4">
        <TextField
          label="Page where customers pay"
          hint={`Stands on invoices, also as a code; ${typeof location === 'undefined' ? '' : location.origin}/pay is a simulated one`}
          {...field('cards.page')}
        />
        <TextField label="Surcharge, percent" hint="Offered as a charge on invoices" {...field('cards.surcharge')} />
      </div>
      <h2 className="mt-3 font-semibold font-serif">Own units</h2>
      <p className="text-soft text-sm">
        Beside each, hour, day, kg and the others: your word prints, its code goes into e-invoices (C62 where none fits
        better).
      </p>
      <RowsField
        form={form}
        name="units"
        what="unit"
        columns={[
          { field: 'word', label: 'Word', width: '1fr' },
          { field: 'code', label: 'Code of UN/ECE Recommendation 20', width: '1fr' },
        ]}
        blank={{ word: '', code: 'C62' }}
        errorAt={errorAt}
      />
      <FormFoot label="Save the business" busy={form.formState.isSubmitting} general={general} />
    </form>
  );
}
