'use client';

import type { Path } from 'react-hook-form';
import { type Customer, customerSchema } from '@/core/parties/customer';
import { changeCustomer } from '@/store/actions/setup';
import { ChoiceField, TextField } from '@/ui/Field';
import { useOpenBook } from '../shell/BookContext';
import { act } from '../shell/book';
import { AddressFields } from './AddressFields';
import { FormFoot } from './FormFoot';
import { useRecordForm } from './useRecordForm';

interface CustomerFormProps {
  /** The customer to change; a new one when left out. */
  readonly customer?: Customer;
  /** Name to begin a new customer with. */
  readonly name?: string;
  readonly onSaved: (id: string) => void;
}

function newCustomer(name: string, country: string): Customer {
  return {
    id: crypto.randomUUID(),
    name,
    address: { street: '', city: '', region: '', postalCode: '', country },
    email: '',
    taxNumber: '',
    endpoint: { scheme: '', id: '' },
    terms: '30d',
    taxCode: '',
    priceMode: 'net',
  };
}

/** One customer, in Setup and in a slip over a document. */
export function CustomerForm({ customer, name = '', onSaved }: CustomerFormProps) {
  const { business, codes } = useOpenBook();
  const { form, submit, field, general } = useRecordForm<Customer>(
    customerSchema,
    customer ?? newCustomer(name, business.address.country),
    (value) => act(changeCustomer, value),
    ({ id }) => onSaved(id),
  );
  return (
    <form onSubmit={submit} noValidate>
      <TextField label="Name" autoFocus {...field('name')} />
      <AddressFields field={(part) => field(`address.${part}` as Path<Customer>)} />
      <div className="grid grid-cols-2 gap-x-4">
        <TextField label="Tax number" {...field('taxNumber')} />
        <TextField label="E-mail" type="email" {...field('email')} />
        <TextField
          label="E-invoice scheme"
          hint="A number of the EAS list, such as 9935"
          {...field('endpoint.scheme')}
        />
        <TextField label="E-invoice id" {...field('endpoint.id')} />
      </div>
      <div className="grid grid-cols-3 gap-x-4">
        <TextField label="Terms" hint="30d, 2w, 1m, eom, eom+10d" {...field('terms')} />
        <ChoiceField
          label="Tax code of their own"
          options={[['', 'by the item'], ...codes.map((code) => [code.id, code.name] as const)]}
          {...field('taxCode')}
        />
        <ChoiceField
          label="Their prices"
          options={[
            ['net', 'hold no tax'],
            ['gross', 'hold the tax'],
          ]}
          {...field('priceMode')}
        />
      </div>
      <FormFoot
        label={`Keep ${customer?.name ?? 'the customer'}`}
        busy={form.formState.isSubmitting}
        general={general}
      />
    </form>
  );
}
