'use client';

import { useState } from 'react';
import type { Path } from 'react-hook-form';
import {
  blankCustomer,
  type Customer,
  customerSchema,
  languageOf,
  MAIL_TOPICS,
  type NumberCheck,
  SENT_FILES,
} from '@/core/parties/customer';
import { CUSTOMER_KINDS } from '@/core/tax/decisionTable';
import { LANGUAGES, plainName } from '@/core/tax/taxCode';
import { allOf } from '@/store/records';
import { findCustomers } from '@/store/sales/queries/documents';
import { changeCustomer } from '@/store/setup/actions/setup';
import { unchanged } from '@/store/setup/actions/unchanged';
import { CheckField } from '@/ui/CheckField';
import { ChoiceField, TextField } from '@/ui/Field';
import { Fold } from '@/ui/Fold';
import { useOpenBook } from '../shell/BookContext';
import { act, useBook } from '../shell/book';
import { FILE_WORDS } from '../shell/delivery/writtenMail';
import { AddressFields } from './AddressFields';
import { COUNTRY_CHOICES, CURRENCY_CHOICES } from './choices';
import { FormFoot } from './FormFoot';
import { PickSome } from './PickSome';
import { PlaceField } from './PlaceField';
import { RowsField } from './RowsField';
import { useRecordForm } from './useActionForm';

interface CustomerFormProps {
  /** The customer to change; a new one when left out. */
  readonly customer?: Customer;
  /** Name to begin a new customer with. */
  readonly name?: string;
  readonly onSaved: (id: string) => void;
}

/** So many customers are offered as the one that this one belongs to. */
const MOST_OTHERS = 500;

/** A number that was changed was not verified as it stands now. */
function withHonestChecks(value: Customer, before: Customer | undefined): Customer {
  const taxNumbers = value.taxNumbers.map((number) => {
    const same = before?.taxNumbers.find((n) => n.country === number.country && n.number === number.number);
    return { country: number.country, number: number.number, check: same?.check ?? (null as NumberCheck | null) };
  });
  return { ...value, taxNumbers };
}

/** As the form edits it: a record that says nothing of sending has it empty. */
const withSending = (customer: Customer): Customer => ({
  ...customer,
  contacts: customer.contacts.map((contact) => ({ ...contact, gets: contact.gets ?? [] })),
  sending: customer.sending ?? { way: '', files: [] },
  notReminded: customer.notReminded ?? false,
});

const TOPIC_CHOICES = MAIL_TOPICS.map((topic) => [topic, topic] as const);
const WAY_CHOICES = [
  ['', 'e-invoice or mail, by its addresses'],
  ['mail', 'mail'],
  ['e-invoice', 'e-invoice'],
  ['print', 'print and post'],
  ['none', 'not at all'],
] as const;

/** What a new customer is asked at first; the rest stands in a fold. */
const AT_FIRST = new Set(['name', 'kind', 'address', 'taxNumbers', 'email', 'root']);

/** One customer, in Setup and in a slip over a document. */
export function CustomerForm({ customer, name = '', onSaved }: CustomerFormProps) {
  const { business, codes, records } = useOpenBook();
  const lists = useBook((db) => allOf(db, 'priceLists')) ?? [];
  const styles = useBook((db) => allOf(db, 'styles')) ?? [];
  const others = useBook((db) => findCustomers(db, '', MOST_OTHERS)) ?? [];
  const [began] = useState(customer);
  const { form, submit, field, errorAt, general } = useRecordForm<Customer>(
    customerSchema,
    customer !== undefined
      ? withSending(customer)
      : {
          ...withSending(blankCustomer(crypto.randomUUID(), name, business.address.country)),
          language: languageOf(business.address.country),
        },
    (value) => act(unchanged(changeCustomer, 'customers', began), withHonestChecks(value, customer)),
    ({ id }) => onSaved(id),
    (value) => withHonestChecks(value, customer),
  );
  // What is wrong must be seen.
  const inFold = Object.keys(form.formState.errors).some((part) => !AT_FIRST.has(part));
  const ours = new Set(records.registrations.map((r) => r.jurisdictionId));
  return (
    <form onSubmit={submit} noValidate>
      <div className="grid grid-cols-[2fr_1fr] gap-x-4">
        <TextField label="Name" autoFocus {...field('name')} />
        <ChoiceField
          label="Customer type"
          options={CUSTOMER_KINDS.map((kind) => [kind, kind === 'government' ? 'government body' : kind] as const)}
          {...field('kind')}
        />
      </div>
      <AddressFields field={(part) => field(`address.${part}` as Path<Customer>)} address={form.watch('address')} />
      <PlaceField
        address={form.watch('address')}
        value={form.watch('placeId') ?? ''}
        onChange={(placeId) => form.setValue('placeId', placeId, { shouldDirty: true })}
      />
      <h2 className="mt-1 font-semibold font-serif">Tax numbers, the first one prints</h2>
      <RowsField
        form={form}
        name="taxNumbers"
        what="tax number"
        ordered
        columns={[
          { field: 'country', label: 'Country of the number', width: '1fr', options: COUNTRY_CHOICES },
          { field: 'number', label: 'Tax number', width: '1fr' },
        ]}
        blank={{ country: customer?.address.country ?? business.address.country, number: '', check: null }}
        errorAt={errorAt}
      />
      <TextField label="E-mail" type="email" className="max-w-[50%]" {...field('email')} />
      <Fold
        words="More: terms, language, prices, e-invoices, contacts, further addresses"
        open={customer !== undefined || inFold}
      >
        <CheckField
          label="A prospect: quoted to, not a customer yet. An address is not needed; the first invoice ends it."
          {...form.register('prospect')}
        />
        <div className="grid grid-cols-3 gap-x-4">
          <TextField
            label="E-invoice scheme"
            hint="A number of the EAS list, such as 9935"
            {...field('endpoint.scheme')}
          />
          <TextField label="E-invoice id" {...field('endpoint.id')} />
          <TextField label="Terms" hint="30d, eom+10d; 30% 0d + 70% 30d; 30d, 2% 10d" {...field('terms')} />
          <ChoiceField label="Language of documents" options={Object.entries(LANGUAGES)} {...field('language')} />
          <ChoiceField
            label="Default tax code"
            hint="Goes before the decision table"
            options={[
              ['', 'by the decision table'],
              ...codes.map((code) => [code.id, `${code.id} ${plainName(code)}`] as const),
            ]}
            {...field('taxCode')}
          />
          <ChoiceField
            label="Their prices"
            options={[
              ['net', 'exclude tax'],
              ['gross', 'include tax'],
            ]}
            {...field('priceMode')}
          />
          <ChoiceField
            label="Price list"
            options={[['', 'the items’ own prices'], ...lists.map((list) => [list.id, list.name] as const)]}
            {...field('priceListId')}
          />
          <ChoiceField
            label="Currency of documents"
            options={[['', `${business.homeCurrency}, home`], ...CURRENCY_CHOICES]}
            {...field('currency')}
          />
          <ChoiceField
            label="Document style"
            options={[['', 'the default'], ...styles.map((style) => [style.id, style.name] as const)]}
            {...field('styleId')}
          />
          <ChoiceField
            label="Parent customer"
            hint="Such as its head office"
            options={[
              ['', 'nobody'],
              ...others.filter(({ id }) => id !== customer?.id).map(({ id, name: of }) => [id, of] as const),
            ]}
            {...field('parentId')}
          />
        </div>
        <div className="grid grid-cols-[1fr_2fr] gap-x-4">
          <TextField
            label="Mandate for direct debit"
            hint="Its reference; invoices then say that they are collected"
            {...field('mandate.reference')}
          />
          <TextField label="Account that is collected from" {...field('mandate.iban')} />
        </div>
        <h2 className="mt-1 font-semibold font-serif">Sending</h2>
        <div className="grid grid-cols-[1fr_2fr] gap-x-4">
          <ChoiceField label="Documents go out by" options={WAY_CHOICES} {...field('sending.way' as Path<Customer>)} />
          <PickSome
            form={form}
            name="sending.files"
            legend="Files of a message"
            none="nothing ticked: the PDF"
            options={SENT_FILES.map((one) => [one, FILE_WORDS[one]] as const)}
          />
        </div>
        <CheckField label="Not reminded of what is overdue" {...form.register('notReminded')} />
        <h2 className="mt-1 font-semibold font-serif">Contacts</h2>
        <RowsField
          form={form}
          name="contacts"
          what="contact"
          columns={[
            { field: 'name', label: 'Contact', width: '1fr' },
            { field: 'role', label: 'Role', width: '0.8fr' },
            { field: 'email', label: 'E-mail of the contact', width: '1fr' },
            { field: 'phone', label: 'Phone', width: '0.7fr' },
            { field: 'gets', label: 'Is sent', width: '1.3fr', kind: 'checks', options: TOPIC_CHOICES },
          ]}
          blank={{ name: '', role: '', email: '', phone: '', gets: [] }}
          errorAt={errorAt}
        />
        <h2 className="mt-1 font-semibold font-serif">Further addresses</h2>
        <RowsField
          form={form}
          name="addresses"
          what="address"
          columns={[
            { field: 'label', label: 'For', width: '0.8fr' },
            { field: 'address.street', label: 'Street', width: '1.2fr' },
            { field: 'address.postalCode', label: 'Postal code', width: '0.6fr' },
            { field: 'address.city', label: 'Town', width: '0.8fr' },
            { field: 'address.region', label: 'Region', width: '0.6fr' },
            { field: 'address.country', label: 'Country', width: '0.7fr', options: COUNTRY_CHOICES },
          ]}
          blank={{
            label: 'Delivery',
            address: { street: '', city: '', region: '', postalCode: '', country: business.address.country },
          }}
          errorAt={errorAt}
        />
        {records.jurisdictions.length > 0 && (
          <PickSome
            form={form}
            name="notLiableIn"
            legend="Not liable in"
            none="covers all its parts"
            options={records.jurisdictions
              .filter((j) => ours.has(j.id) || customer?.notLiableIn.includes(j.id))
              .map((j) => [j.id, j.name] as const)}
          />
        )}
        {records.withholdingTypes.length > 0 && (
          <PickSome
            form={form}
            name="withholding"
            legend="Withholds tax from payments"
            options={records.withholdingTypes.map((type) => [type.id, type.name] as const)}
          />
        )}
      </Fold>
      <FormFoot
        label={`Save ${customer?.name ?? 'the customer'}`}
        busy={form.formState.isSubmitting}
        general={general}
      />
    </form>
  );
}
