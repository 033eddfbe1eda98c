'use client';

import { useState } from 'react';
import { isIsoDate } from '@/core/kernel/date';
import { showNumber } from '@/core/kernel/show';
import { type Place, placeKeys, placeSchema } from '@/core/tax/place';
import { resolveTax } from '@/core/tax/resolve';
import { hasOwnRate } from '@/core/tax/tax';
import { stackKey } from '@/core/tax/taxKey';
import { knownClasses, prepareSetup } from '@/core/tax/taxSetup';
import { dropPlace, keepPlace } from '@/store/setup/actions/taxSetup';
import { unchanged } from '@/store/setup/actions/unchanged';
import { Button } from '@/ui/Button';
import { ChoiceField, TextField } from '@/ui/Field';
import { Ruled } from '@/ui/Ruled';
import { COUNTRY_CHOICES, jurisdictionChoices } from '../../shared/choices';
import { DateField } from '../../shared/DateField';
import { FormFoot } from '../../shared/FormFoot';
import { RowsField } from '../../shared/RowsField';
import { useRecordForm } from '../../shared/useActionForm';
import { useOpenBook } from '../../shell/BookContext';
import { act, today } from '../../shell/book';

interface PlaceFormProps {
  /** The place to change; a new one when left out. */
  readonly place?: Place;
  readonly onSaved: () => void;
}

/** What the form edits: a list of texts is a list of records to the form. */
interface Edited extends Omit<Place, 'stack'> {
  readonly stack: readonly { readonly id: string }[];
}

const placeOf = ({ stack, ...rest }: Edited): Place => ({ ...rest, stack: stack.map(({ id }) => id) });

const BLANK: Place = {
  id: '',
  name: '',
  stack: [],
  rounding: 'together',
  matches: [{ country: '', region: '', postalFrom: '', postalTo: '', city: '' }],
};

/** One place: its stack, and which addresses lie in it. */
export function PlaceForm({ place, onSaved }: PlaceFormProps) {
  const { records } = useOpenBook();
  const isNew = place === undefined;
  const [began] = useState(place);
  const { form, submit, field, errorAt, general } = useRecordForm<Edited>(
    placeSchema,
    { ...(place ?? BLANK), stack: (place ?? BLANK).stack.map((id) => ({ id })) },
    (value) => {
      const kept = placeOf(value);
      return act(unchanged(keepPlace, 'places', began), { value: { ...kept, keys: placeKeys(kept) }, isNew });
    },
    onSaved,
    placeOf,
  );
  const written = placeOf(form.watch() as Edited);
  return (
    <form onSubmit={submit} noValidate>
      <div className="grid grid-cols-[1fr_2fr_1.5fr] gap-x-4">
        <TextField label="Short code" hint="Such as WA-SEATTLE" readOnly={!isNew} {...field('id')} />
        <TextField label="Name" {...field('name')} />
        <ChoiceField
          label="Tax rounding"
          options={[
            ['together', 'as one combined rate, then split'],
            ['apart', 'each separately'],
          ]}
          {...field('rounding')}
        />
      </div>
      <h2 className="mt-2 mb-1 font-semibold font-serif">Stack of jurisdictions, widest first</h2>
      <RowsField
        form={form}
        name="stack"
        what="jurisdiction"
        ordered
        columns={[
          { field: 'id', label: 'Jurisdiction', width: '1fr', options: jurisdictionChoices(records.jurisdictions) },
        ]}
        blank={{ id: '' }}
        errorAt={(path) => errorAt(path.replace(/\.id$/, ''))}
      />
      <h2 className="mt-2 mb-1 font-semibold font-serif">Addresses it covers</h2>
      <RowsField
        form={form}
        name="matches"
        what="match"
        columns={[
          { field: 'country', label: 'Country', width: '1.2fr', options: COUNTRY_CHOICES },
          { field: 'region', label: 'Region', width: '80px' },
          { field: 'postalFrom', label: 'Postal code from', width: '110px' },
          { field: 'postalTo', label: 'to', width: '90px' },
          { field: 'city', label: 'Town or city', width: '1fr' },
        ]}
        blank={BLANK.matches[0]}
        errorAt={errorAt}
      />
      <CombinedRates place={written} />
      <FormFoot label={`Save ${place?.name ?? 'the place'}`} busy={form.formState.isSubmitting} general={general} />
      {place !== undefined && (
        <p className="mt-4">
          <Button
            weight="quiet"
            onClick={() => void act(dropPlace, { id: place.id }).then((result) => result.ok && onSaved())}
          >
            Remove {place.name}; documents keep their taxes
          </Button>
        </p>
      )}
    </form>
  );
}

/** What the customer sees for each class on a day, and how it splits. */
function CombinedRates({ place }: { readonly place: Place }) {
  const { records } = useOpenBook();
  const [day, setDay] = useState<string>(today());
  const setup = prepareSetup({ ...records, places: [place] });
  const rows = !isIsoDate(day)
    ? []
    : knownClasses(records).flatMap((taxClass) => {
        const tax = resolveTax(setup, stackKey(place.id, taxClass), day, () => null, 'en');
        const own = place.stack.some((id) => setup.taxesOf.get(id)?.some((one) => hasOwnRate(one, taxClass, day)));
        return 'problem' in tax || tax.components.length === 0 ? [] : [{ taxClass, tax, own }];
      });
  return (
    <section aria-label="Combined rates" className="mt-2 mb-3">
      <div className="flex items-end gap-4">
        <h2 className="mb-1 flex-1 font-semibold font-serif">Combined rate by class</h2>
        <DateField label="As at" className="w-[130px]" value={day} onChange={(event) => setDay(event.target.value)} />
      </div>
      {rows.length === 0 && <p className="text-soft">No tax of its jurisdictions has a rate on this date.</p>}
      {rows.length > 0 && (
        <Ruled
          caption="Combined rate by class"
          rows={rows}
          keyOf={(row) => row.taxClass}
          columns={[
            {
              head: 'Class',
              width: '180px',
              cell: (row) => (
                <>
                  {row.taxClass}
                  {!row.own && (
                    <span className="block text-soft text-xs">no rate of its own: the general one applies</span>
                  )}
                </>
              ),
            },
            {
              head: 'Together',
              align: 'right',
              width: '90px',
              cell: (row) => `${showNumber(row.tax.percent)} %`,
            },
            {
              head: 'Split',
              cell: (row) =>
                row.tax.components
                  .map((c) => `${c.jurisdictionName} ${c.percent === '' ? c.perUnit : showNumber(c.percent)}`)
                  .join(' + '),
            },
          ]}
        />
      )}
    </section>
  );
}
