'use client';

import { useRouter } from 'next/navigation';
import type { Path } from 'react-hook-form';
import * as yup from 'yup';
import { currency } from '@/core/kernel/currency';
import { isoDate } from '@/core/kernel/date';
import { decimal } from '@/core/kernel/decimal';
import { type Business, businessSchema } from '@/core/parties/business';
import { spanOf } from '@/core/periods/calendar';
import { type Registration, registrationSchema } from '@/core/tax/registration';
import type { TaxCode } from '@/core/tax/taxCode';
import { begin } from '@/store/actions/setup';
import { ChoiceField, TextField } from '@/ui/Field';
import { AddressFields } from '../setup/AddressFields';
import { CURRENCY_CHOICES } from '../setup/choices';
import { FormFoot } from '../setup/FormFoot';
import { RegistrationFields } from '../setup/RegistrationFields';
import { useRecordForm } from '../setup/useRecordForm';
import { act, today } from '../shell/book';

interface Beginning {
  readonly business: Business;
  readonly registration: Registration;
  readonly standardRate: string;
}

const schema = yup.object({
  business: businessSchema,
  registration: registrationSchema,
  standardRate: yup
    .string()
    .defined()
    .matches(/^\d{1,3}(\.\d{1,4})?$/, 'Give the standard rate in percent, such as 23.'),
});

/** A standard and a zero code are enough to write the first invoice; others are added in Setup. */
function firstCodes(standardRate: string): TaxCode[] {
  const none = { legend: '', exemptionCode: '' };
  const from = isoDate('2000-01-01');
  return [
    {
      ...none,
      id: 'STD',
      name: `Standard ${standardRate}`,
      category: 'S',
      taxClass: 'standard',
      rates: [{ from, percent: decimal(standardRate) }],
    },
    { ...none, id: 'ZERO', name: 'Zero', category: 'Z', taxClass: 'zero', rates: [{ from, percent: decimal('0') }] },
  ];
}

/** Begins an empty book: who we are, and one registration. */
export function BeginForm() {
  const router = useRouter();
  const { form, submit, field, general } = useRecordForm<Beginning>(
    schema,
    {
      business: {
        name: '',
        address: { street: '', city: '', region: '', postalCode: '', country: '' },
        legalId: '',
        email: '',
        phone: '',
        iban: '',
        bic: '',
        endpoint: { scheme: '', id: '' },
        homeCurrency: currency('EUR'),
      },
      registration: {
        id: crypto.randomUUID(),
        name: '',
        authority: '',
        country: '',
        number: '',
        frequency: 'two-monthly',
        basis: 'on-issue',
        keptFrom: spanOf('two-monthly', today()).start,
        filedUntil: '',
      },
      standardRate: '',
    },
    ({ business, registration, standardRate }) =>
      act(begin, { business, registration, codes: firstCodes(standardRate) }),
    () => router.replace('/today'),
  );
  return (
    <form onSubmit={submit} noValidate className="border border-rule bg-sheet px-6 py-5">
      <h2 className="mb-2 font-serif text-xl">The business</h2>
      <div className="grid grid-cols-[3fr_1fr] gap-x-4">
        <TextField label="Name of the business" autoFocus {...field('business.name')} />
        <ChoiceField label="Home currency" options={CURRENCY_CHOICES} {...field('business.homeCurrency')} />
      </div>
      <AddressFields field={(part) => field(`business.address.${part}` as Path<Beginning>)} />
      <h2 className="mt-4 mb-2 font-serif text-xl">Its tax registration</h2>
      <RegistrationFields field={(part) => field(`registration.${part}`)} />
      <TextField
        label="Standard rate, percent"
        hint="Rates by date, other codes and their words come in Setup"
        inputMode="decimal"
        {...field('standardRate')}
      />
      <FormFoot label="Begin the book" busy={form.formState.isSubmitting} general={general} />
    </form>
  );
}
