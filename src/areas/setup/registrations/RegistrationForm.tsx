'use client';

import { useState } from 'react';
import { usualFields } from '@/core/decisions/setup/usualRegistration';
import { spanOf } from '@/core/returns/calendar';
import { PACK_TITLES, packOf } from '@/core/tax/packs';
import { type Registration, registrationSchema } from '@/core/tax/registration';
import { unionOf } from '@/core/tax/unions';
import { keepRegistration } from '@/store/setup/actions/taxSetup';
import { unchanged } from '@/store/setup/actions/unchanged';
import { CheckField } from '@/ui/CheckField';
import { ChoiceField, TextField } from '@/ui/Field';
import { CURRENCY_CHOICES, jurisdictionChoices } from '../../shared/choices';
import { DateField } from '../../shared/DateField';
import { FormFoot } from '../../shared/FormFoot';
import { PickSome } from '../../shared/PickSome';
import { RegistrationFields } from '../../shared/RegistrationFields';
import { useRecordForm } from '../../shared/useActionForm';
import { useOpenBook } from '../../shell/BookContext';
import { act, today } from '../../shell/book';

interface RegistrationFormProps {
  /** The registration to change; a new one when left out. */
  readonly registration?: Registration;
  readonly onSaved: () => void;
}

const PACKS = PACK_TITLES.filter(({ id }) => packOf(id).registration !== null);

/** A registration as the pack of its country usually has it. */
function usual(packId: string, before: Registration): Registration {
  const known = packOf(packId).registration;
  if (known === null) return before;
  return { ...before, ...usualFields(known, today()) };
}

function newRegistration(home: Registration['filingCurrency']): Registration {
  return {
    id: crypto.randomUUID(),
    name: '',
    authority: '',
    country: '',
    jurisdictionId: '',
    number: '',
    from: '',
    until: '',
    frequency: 'quarterly',
    basis: 'on-issue',
    badDebtRelief: true,
    filingCurrency: home,
    rounding: { mode: 'half-up', level: 'document', wholeUnits: false, cashStep: '' },
    accounts: { output: '', notYetDue: '', payable: '' },
    keptFrom: spanOf('quarterly', today()).start,
    filedUntil: '',
  };
}

/** Our registration with one authority. */
export function RegistrationForm({ registration, onSaved }: RegistrationFormProps) {
  const { accounts, records, currency: home } = useOpenBook();
  const [pack, setPack] = useState('');
  const isNew = registration === undefined;
  const [began] = useState(registration);
  const { form, submit, field, general } = useRecordForm<Registration>(
    registrationSchema,
    { alsoIn: [], unionSalesAtHome: false, ...(registration ?? newRegistration(home)) },
    (value) => act(unchanged(keepRegistration, 'registrations', began), { value, isNew }),
    onSaved,
  );
  const liabilities = accounts
    .filter((account) => account.type === 'liability')
    .map(({ code, name }) => [code, `${code} ${name}`] as const);
  const country = form.watch('country');
  const further = records.taxes.filter(
    ({ ownRegistration, jurisdictionId }) => ownRegistration && jurisdictionId.startsWith(`${country}-`),
  );
  return (
    <form onSubmit={submit} noValidate>
      {isNew && (
        <ChoiceField
          label="Preset for"
          hint="Taken from the starter packs; check it against the letter of the authority"
          options={[['', 'nothing'], ...PACKS.map(({ id, title }) => [id, title] as const)]}
          value={pack}
          onChange={({ target: { value } }) => {
            setPack(value);
            if (value !== '') form.reset(usual(value, form.getValues()));
          }}
        />
      )}
      <RegistrationFields field={(part) => field(part)} />
      {further.length > 0 && (
        <PickSome
          form={form}
          name="alsoIn"
          legend="Also registered for"
          none="their tax is charged only where this is ticked"
          options={further.map(({ name, jurisdictionId }) => {
            const where = records.jurisdictions.find(({ id }) => id === jurisdictionId)?.name ?? jurisdictionId;
            return [jurisdictionId, `${name} of ${where}`] as const;
          })}
        />
      )}
      <div className="grid grid-cols-3 gap-x-4">
        <ChoiceField
          label="Jurisdiction"
          hint="Jurisdictions are set up beside this"
          options={jurisdictionChoices(records.jurisdictions)}
          {...field('jurisdictionId')}
        />
        <DateField label="Valid from" hint="Empty: since before this book" {...field('from')} />
        <DateField label="Valid until" hint="Empty while it lasts" {...field('until')} />
        <ChoiceField
          label="Accounting basis"
          options={[
            ['on-issue', 'invoice basis, when issued'],
            ['on-payment', 'cash basis, when paid'],
          ]}
          {...field('basis')}
        />
        <CheckField label="Bad debt relief" {...field('badDebtRelief')} />
        {unionOf(country, today()) === 'EU' && (
          <CheckField
            label="EU sales to consumers below the threshold, taxed at home"
            {...form.register('unionSalesAtHome')}
          />
        )}
        <ChoiceField label="Filing currency" options={CURRENCY_CHOICES} {...field('filingCurrency')} />
        <TextField label="Cash rounding" hint="Such as 0.05; empty for none" {...field('rounding.cashStep')} />
        <ChoiceField
          label="Rounding"
          options={[
            ['half-up', 'half up'],
            ['half-even', 'half even'],
          ]}
          {...field('rounding.mode')}
        />
        <ChoiceField
          label="Tax rounding"
          hint="E-invoices require per document"
          options={[
            ['document', 'per document'],
            ['line', 'per line'],
          ]}
          {...field('rounding.level')}
        />
        <CheckField label="Whole currency units" {...form.register('rounding.wholeUnits')} />
        <ChoiceField
          label="Output tax"
          hint="One account for each registration"
          options={[['', 'a new account'], ...liabilities]}
          {...field('accounts.output')}
        />
        <ChoiceField
          label="Deferred output tax"
          options={[['', 'the default one'], ...liabilities]}
          {...field('accounts.notYetDue')}
        />
        <ChoiceField
          label="Payable"
          options={[['', 'the default one'], ...liabilities]}
          {...field('accounts.payable')}
        />
      </div>
      <FormFoot
        label={isNew ? 'Save the registration' : `Save ${registration.name}`}
        busy={form.formState.isSubmitting}
        general={general}
      />
    </form>
  );
}
