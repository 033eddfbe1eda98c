'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { toast } from 'sonner';
import { JURISDICTION_KINDS, type Jurisdiction, jurisdictionSchema } from '@/core/tax/jurisdiction';
import { keepJurisdiction } from '@/store/setup/actions/taxSetup';
import { unchanged } from '@/store/setup/actions/unchanged';
import { Button } from '@/ui/Button';
import { ChoiceField, TextField } from '@/ui/Field';
import { Empty, SheetTitle } from '@/ui/Page';
import { jurisdictionChoices } from '../../shared/choices';
import { FormFoot } from '../../shared/FormFoot';
import { useRecordForm } from '../../shared/useActionForm';
import { useOpenBook } from '../../shell/BookContext';
import { act } from '../../shell/book';
import { routes } from '../../shell/routes';
import { TaxForm } from './TaxForm';

const BLANK: Jurisdiction = { id: '', name: '', kind: 'country', code: '', parentId: '' };

/** One jurisdiction, and below it each of its taxes with the history of its rates. */
export function JurisdictionPage({ id }: { readonly id: string }) {
  const router = useRouter();
  const { records } = useOpenBook();
  const [adding, setAdding] = useState(false);
  const known = records.jurisdictions.find((j) => j.id === id);
  if (id !== 'new' && known === undefined) return <Empty>There is no jurisdiction {id}.</Empty>;
  const taxes = records.taxes.filter((tax) => tax.jurisdictionId === id);
  return (
    <>
      <SheetTitle>{known?.name ?? 'New jurisdiction'}</SheetTitle>
      <JurisdictionForm
        {...(known && { jurisdiction: known })}
        onSaved={(kept) =>
          known === undefined ? router.push(routes.record('jurisdictions', kept)) : toast('It is saved')
        }
      />
      {taxes.map((tax) => (
        <section key={tax.id} aria-label={`${tax.name} of ${known?.name}`} className="mt-6 border-rule border-t pt-4">
          <h2 className="mb-2 font-semibold font-serif">{tax.name}</h2>
          <TaxForm tax={tax} jurisdictionId={id} onSaved={() => toast(`${tax.name} is saved`)} />
        </section>
      ))}
      {known !== undefined && !adding && (
        <p className="mt-6">
          <Button onClick={() => setAdding(true)}>New tax of {known.name}</Button>
        </p>
      )}
      {known !== undefined && adding && (
        <section aria-label="New tax" className="mt-6 border-rule border-t pt-4">
          <h2 className="mb-2 font-semibold font-serif">New tax</h2>
          <TaxForm jurisdictionId={id} onSaved={() => setAdding(false)} />
        </section>
      )}
    </>
  );
}

interface JurisdictionFormProps {
  readonly jurisdiction?: Jurisdiction;
  readonly onSaved: (id: string) => void;
}

function JurisdictionForm({ jurisdiction, onSaved }: JurisdictionFormProps) {
  const { records } = useOpenBook();
  const isNew = jurisdiction === undefined;
  const [began] = useState(jurisdiction);
  const { form, submit, field, general } = useRecordForm<Jurisdiction>(
    jurisdictionSchema,
    jurisdiction ?? BLANK,
    (value) => act(unchanged(keepJurisdiction, 'jurisdictions', began), { value, isNew }),
    ({ id }) => onSaved(id),
  );
  return (
    <form onSubmit={submit} noValidate>
      <div className="grid grid-cols-[1fr_2fr] gap-x-4">
        <TextField label="Short code" hint="Such as IE, US-WA, US-WA-KING" readOnly={!isNew} {...field('id')} />
        <TextField label="Name" {...field('name')} />
        <ChoiceField
          label="Kind"
          options={JURISDICTION_KINDS.map((kind) => [kind, kind === 'state' ? 'state or province' : kind] as const)}
          {...field('kind')}
        />
        <ChoiceField
          label="Part of"
          options={[
            ['', 'nothing, it is a country'],
            ...jurisdictionChoices(records.jurisdictions).filter(([id]) => id !== '' && id !== jurisdiction?.id),
          ]}
          {...field('parentId')}
        />
        <TextField label="ISO 3166 code" hint="IE for a country, US-WA for a state" {...field('code')} />
      </div>
      <FormFoot
        label={`Save ${jurisdiction?.name ?? 'the jurisdiction'}`}
        busy={form.formState.isSubmitting}
        general={general}
      />
    </form>
  );
}
