'use client';

import { useRouter } from 'next/navigation';
import type { Path } from 'react-hook-form';
import * as yup from 'yup';
import type { Beginning } from '@/core/decisions/setup/begin';
import { usualFields } from '@/core/decisions/setup/usualRegistration';
import { currency } from '@/core/kernel/currency';
import { writeDate } from '@/core/kernel/date';
import { decimal } from '@/core/kernel/decimal';
import { type Business, businessSchema } from '@/core/parties/business';
import { spanOf } from '@/core/returns/calendar';
import type { DecisionRow } from '@/core/tax/decisionTable';
import { type FirstPacks, firstPacks } from '@/core/tax/packs';
import { recordsOfPacks } from '@/core/tax/packs/plan';
import { type Registration, registrationSchema } from '@/core/tax/registration';
import { sampleNumber } from '@/core/tax/taxNumber';
import { begin } from '@/store/setup/actions/setup';
import { ChoiceField, TextField } from '@/ui/Field';
import { Fold } from '@/ui/Fold';
import { AddressFields } from '../shared/AddressFields';
import {
  COUNTRY_CHOICES,
  CURRENCY_CHOICES,
  countryName,
  FREQUENCY_CHOICES,
  numberLabel,
  regionChoices,
} from '../shared/choices';
import { DateField } from '../shared/DateField';
import { FormFoot } from '../shared/FormFoot';
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
  business: businessSchema.test('region', function region({ address }) {
    const isMissing = address.region === '' && regionChoices(address.country, '').length > 0;
    return (
      !isMissing || this.createError({ path: 'business.address.region', message: 'Choose the state or province.' })
    );
  }),
  registration: registrationSchema,
  standardRate: yup
    .string()
    .defined()
    .test('rate', 'Enter the standard rate in percent, such as 23.', function rate(typed) {
      return packsFor(this.parent as Begun) !== null || RATE.test(typed);
    }),
});

/** The packs that the book begins with; null where it begins with one rate. */
function packsFor({ business: { address }, taxes }: Begun): FirstPacks | null {
  if (taxes === 'rate' || address.country === '') return null;
  return firstPacks(address.country, address.region, today());
}

/** Without a pack the registration's territory is its country until another one is set up. */
const begunOf = (value: Begun): Begun => ({
  ...value,
  registration: {
    ...value.registration,
    country: value.business.address.country,
    jurisdictionId: packsFor(value)?.jurisdictionId ?? value.business.address.country,
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
  const rate = { from: registration.keptFrom, until: '', perUnit: '', source: '' } as const;
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
        name: country === 'US' ? 'Sales tax' : 'VAT',
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

/** What is known of a registration where no pack speaks of it. */
const NO_USUAL = { name: '', authority: '' };

/** A registration as the pack of a place usually has it; null where no pack fits. */
function usualIn(country: string, region: string) {
  const known = firstPacks(country, region, today())?.packs[0]?.registration ?? null;
  return known === null ? null : usualFields(known, today());
}

/** Begins an empty book: where the business is, who it is, and one registration. */
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
  const { country, region } = value.business.address;
  const offered = packsFor({ ...value, taxes: 'pack' });
  const isOfPack = packsFor(value) !== null;
  /** What the packs know of the place is filled in, but for what was typed. */
  const settle = (place: Partial<Begun['business']['address']>) => {
    const address = { ...form.getValues('business.address'), ...place };
    const { registration, business } = form.getValues();
    const usual = usualIn(address.country, address.region);
    form.reset(
      {
        ...form.getValues(),
        business: { ...business, address, homeCurrency: usual?.filingCurrency ?? business.homeCurrency },
        registration: { ...registration, ...(usual ?? NO_USUAL), country: address.country },
      },
      { keepDirty: true, keepDefaultValues: true },
    );
  };
  const regions = regionChoices(country, region);
  const isPlaced = country !== '' && (regions.length === 0 || region !== '');
  return (
    <form onSubmit={submit} noValidate className="border border-rule bg-sheet px-6 py-5">
      <div className="grid grid-cols-2 gap-x-4">
        <ChoiceField
          label="Country"
          autoFocus
          options={COUNTRY_CHOICES}
          {...field('business.address.country')}
          onChange={(event) => settle({ country: event.target.value, region: '' })}
        />
        {regions.length > 0 && (
          <ChoiceField
            key={country}
            label="State or province"
            options={regions}
            {...field('business.address.region')}
            onChange={(event) => settle({ region: event.target.value })}
          />
        )}
      </div>
      <h2 className="mt-2 mb-2 font-serif text-xl">The business</h2>
      <TextField label="Name of the business" {...field('business.name')} />
      <AddressFields
        field={(part) => field(`business.address.${part}` as Path<Begun>)}
        address={value.business.address}
        part="town"
      />
      <h2 className="mt-2 mb-2 font-serif text-xl">Its tax registration</h2>
      <TextField
        label={numberLabel(country)}
        {...(country !== '' && { hint: `Such as ${sampleNumber(country)}` })}
        {...field('registration.number')}
      />
      <div className="grid grid-cols-2 gap-x-4">
        <ChoiceField label="Return frequency" options={FREQUENCY_CHOICES} {...field('registration.frequency')} />
        <DateField
          label="Start of the first tax period"
          hint="Periods are filed in order from this one"
          {...field('registration.keptFrom')}
        />
      </div>
      {isPlaced && !isOfPack && (
        <TextField
          label="Standard rate, percent"
          hint="Other rates, codes and their wording are added in Setup"
          inputMode="decimal"
          {...field('standardRate')}
        />
      )}
      <Fold words="More: short name, authority, currency, taxes" open={isPlaced && offered === null}>
        <div className="grid grid-cols-3 gap-x-4">
          <TextField label="Short name" hint="Shown at the head of the period ribbon" {...field('registration.name')} />
          <TextField label="Authority" {...field('registration.authority')} />
          <ChoiceField label="Home currency" options={CURRENCY_CHOICES} {...field('business.homeCurrency')} />
        </div>
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
      </Fold>
      {isOfPack && (
        <p className="mb-3 text-soft text-sm">
          Rates, codes, places and rows come from the starter pack {offered?.packs.map(({ title }) => title).join('; ')}
          , as known on {writeDate(offered?.packs[0]?.knownAt ?? today())}. Check them in Setup before use.
        </p>
      )}
      <FormFoot label="Begin the book" busy={form.formState.isSubmitting} general={general} />
    </form>
  );
}
