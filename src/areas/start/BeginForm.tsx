'use client';

import { useRouter } from 'next/navigation';
import type { Path } from 'react-hook-form';
import * as yup from 'yup';
import type { Beginning } from '@/core/decisions/setup';
import { currency } from '@/core/kernel/currency';
import { isoDate } from '@/core/kernel/date';
import { decimal } from '@/core/kernel/decimal';
import { type Business, businessSchema } from '@/core/parties/business';
import { spanOf } from '@/core/periods/calendar';
import type { DecisionRow } from '@/core/tax/decisionTable';
import { type Registration, registrationSchema } from '@/core/tax/registration';
import { begin } from '@/store/actions/setup';
import { ChoiceField, TextField } from '@/ui/Field';
import { AddressFields } from '../setup/AddressFields';
import { CURRENCY_CHOICES } from '../setup/choices';
import { FormFoot } from '../setup/FormFoot';
import { RegistrationFields } from '../setup/RegistrationFields';
import { useRecordForm } from '../setup/useRecordForm';
import { act, today } from '../shell/book';

/** What the form asks for. */
interface Begun {
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

/** The registration's territory is its country until another one is set up. */
const begunOf = (value: Begun): Begun => ({
  ...value,
  registration: {
    ...value.registration,
    jurisdictionId: value.registration.country,
    filingCurrency: value.business.homeCurrency,
  },
});

const countryNames = new Intl.DisplayNames(['en'], { type: 'region' });

/** A standard and a zero code are enough to write the first invoice; packs and Setup bring the rest. */
function beginningOf(value: Begun): Beginning {
  const { business, registration, standardRate } = begunOf(value);
  const { country } = registration;
  const taxId = `${country}-VAT`;
  const rate = { from: isoDate('2000-01-01'), until: '', perUnit: '', source: '' } as const;
  const none = { legends: [], exemptionCode: '', boxBase: '', boxTax: '' };
  const row = (taxClass: string, code: string): DecisionRow => ({
    id: `first-${taxClass}`,
    name: `Class ${taxClass}, at home`,
    registeredIn: [country],
    supply: [],
    taxClass: [taxClass],
    customer: [],
    number: [],
    shipFrom: [],
    shipTo: ['territory'],
    from: '',
    until: '',
    result: { kind: 'code', code },
    source: '',
  });
  return {
    business,
    registration,
    jurisdictions: [
      { id: country, name: countryNames.of(country) ?? country, kind: 'country', code: country, parentId: '' },
    ],
    taxes: [
      {
        id: taxId,
        jurisdictionId: country,
        name: 'VAT',
        rates: [{ ...rate, taxClass: 'standard', percent: decimal(standardRate) }],
      },
    ],
    codes: [
      {
        ...none,
        id: 'STD',
        name: 'Standard {rate}',
        category: 'S',
        components: [{ taxId, taxClass: 'standard', family: '', compound: false }],
      },
      { ...none, id: 'ZERO', name: 'Zero', category: 'Z', components: [] },
    ],
    rows: [row('standard', 'STD'), row('zero', 'ZERO')],
  };
}

/** Begins an empty book: who we are, and one registration. */
export function BeginForm() {
  const router = useRouter();
  const { form, submit, field, general } = useRecordForm<Begun>(
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
        creditorId: '',
        endpoint: { scheme: '', id: '' },
        homeCurrency: currency('EUR'),
        styleId: '',
      },
      registration: {
        id: crypto.randomUUID(),
        name: '',
        authority: '',
        country: '',
        jurisdictionId: '',
        number: '',
        from: '',
        until: '',
        frequency: 'two-monthly',
        basis: 'on-issue',
        filingCurrency: currency('EUR'),
        rounding: { mode: 'half-up', level: 'document', wholeUnits: false, cashStep: '' },
        accounts: { output: '', notYetDue: '', payable: '' },
        keptFrom: spanOf('two-monthly', today()).start,
        filedUntil: '',
      },
      standardRate: '',
    },
    (value) => act(begin, beginningOf(value)),
    () => router.replace('/today'),
    begunOf,
  );
  return (
    <form onSubmit={submit} noValidate className="border border-rule bg-sheet px-6 py-5">
      <h2 className="mb-2 font-serif text-xl">The business</h2>
      <div className="grid grid-cols-[3fr_1fr] gap-x-4">
        <TextField label="Name of the business" autoFocus {...field('business.name')} />
        <ChoiceField label="Home currency" options={CURRENCY_CHOICES} {...field('business.homeCurrency')} />
      </div>
      <AddressFields field={(part) => field(`business.address.${part}` as Path<Begun>)} />
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
