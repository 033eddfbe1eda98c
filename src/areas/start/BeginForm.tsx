'use client';

import { useRouter } from 'next/navigation';
import type { Path } from 'react-hook-form';
import * as yup from 'yup';
import type { Beginning } from '@/core/decisions/setup/begin';
import { currency } from '@/core/kernel/currency';
import { isoDate, writeDate } from '@/core/kernel/date';
import { decimal } from '@/core/kernel/decimal';
import { type Business, businessSchema } from '@/core/parties/business';
import { spanOf } from '@/core/returns/calendar';
import type { DecisionRow } from '@/core/tax/decisionTable';
import { type FirstPacks, firstPacks } from '@/core/tax/packs';
import { recordsOfPacks } from '@/core/tax/packs/plan';
import { type Registration, registrationSchema } from '@/core/tax/registration';
import { begin } from '@/store/setup/actions/setup';
import { ChoiceField, TextField } from '@/ui/Field';
import { AddressFields } from '../shared/AddressFields';
import { CURRENCY_CHOICES, countryName } from '../shared/choices';
import { FormFoot } from '../shared/FormFoot';
import { RegistrationFields } from '../shared/RegistrationFields';
import { useRecordForm } from '../shared/useActionForm';
import { act, today } from '../shell/book';
import { routes } from '../shell/routes';

/** What the form asks for. */
interface Begun {
  readonly business: Business;
  readonly registration: Registration;
  /** Taxes come from the starter pack of the country, where there is one, or from one rate. */
  readonly taxes: 'pack' | 'rate';
  readonly standardRate: string;
}

const RATE = /^\d{1,3}(\.\d{1,4})?$/;

const schema = yup.object({
  business: businessSchema,
  registration: registrationSchema,
  standardRate: yup
    .string()
    .defined()
    .test('rate', 'Enter the standard rate in percent, such as 23.', function rate(typed) {
      return packsFor(this.parent as Begun) !== null || RATE.test(typed);
    }),
});

/** The packs that the book begins with; null where it begins with one rate. */
function packsFor({ business, registration, taxes }: Begun): FirstPacks | null {
  if (taxes === 'rate' || registration.country === '') return null;
  return firstPacks(registration.country, business.address.region, today());
}

/** Without a pack the registration's territory is its country until another one is set up. */
const begunOf = (value: Begun): Begun => ({
  ...value,
  registration: {
    ...value.registration,
    jurisdictionId: packsFor(value)?.jurisdictionId ?? value.registration.country,
    filingCurrency: value.business.homeCurrency,
  },
});

function beginningOf(value: Begun): Beginning {
  const { business, registration } = begunOf(value);
  const first = packsFor(value);
  return { business, registration, ...(first === null ? oneRate(begunOf(value)) : recordsOfPacks(first.packs)) };
}

/** A standard and a zero code are enough to write the first invoice; packs and Setup bring the rest. */
function oneRate({ registration, standardRate }: Begun): Omit<Beginning, 'business' | 'registration'> {
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
    jurisdictions: [{ id: country, name: countryName(country), kind: 'country', code: country, parentId: '' }],
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
        badDebtRelief: true,
        filingCurrency: currency('EUR'),
        rounding: { mode: 'half-up', level: 'document', wholeUnits: false, cashStep: '' },
        accounts: { output: '', notYetDue: '', payable: '' },
        keptFrom: spanOf('two-monthly', today()).start,
        filedUntil: '',
      },
      taxes: 'pack',
      standardRate: '',
    },
    (value) => act(begin, beginningOf(value)),
    () => router.replace(routes.today),
    begunOf,
  );
  const value = form.watch() as Begun;
  const offered = packsFor({ ...value, taxes: 'pack' });
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
      {offered !== null && (
        <ChoiceField
          label="Taxes begin with"
          options={[
            ['pack', `the starter pack ${offered.packs.map(({ title }) => title).join('; ')}`],
            ['rate', 'a standard rate of my own'],
          ]}
          {...field('taxes')}
        />
      )}
      {packsFor(value) !== null ? (
        <p className="mb-3 text-soft text-sm">
          Rates, codes, places and rows are as known on {writeDate(offered?.packs[0]?.knownAt ?? today())}. Check them
          in Setup before use.
        </p>
      ) : (
        <TextField
          label="Standard rate, percent"
          hint="Other rates, codes and their wording are added in Setup"
          inputMode="decimal"
          {...field('standardRate')}
        />
      )}
      <FormFoot label="Begin the book" busy={form.formState.isSubmitting} general={general} />
    </form>
  );
}
