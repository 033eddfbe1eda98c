'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { findPlace, indexPlaces, type Place } from '@/core/tax/place';
import { recordOf } from '@/store/records';
import { countPlaces, placesByName, placesNear } from '@/store/setup/queries/places';
import { Button } from '@/ui/Button';
import { ChoiceField, TextField } from '@/ui/Field';
import Link from '@/ui/Link';
import { Empty, SheetTitle } from '@/ui/Page';
import { COUNTRY_CHOICES } from '../../shared/choices';
import { ListTable } from '../../shared/ListTable';
import { RecordPage } from '../../shared/RecordList';
import { useMore } from '../../shared/useMore';
import { useOpenBook } from '../../shell/BookContext';
import { useBook } from '../../shell/book';
import { routes } from '../../shell/routes';
import { PlaceForm } from './PlaceForm';

const wordsOf = ({ matches }: Place): string =>
  matches
    .map((m) =>
      [
        m.country,
        m.region,
        m.postalFrom && `${m.postalFrom}${m.postalTo === m.postalFrom ? '' : `–${m.postalTo}`}`,
        m.city,
      ]
        .filter(Boolean)
        .join(' '),
    )
    .join('; ');

/** Places by name, and which of them an address lies in. */
export function PlaceList() {
  const router = useRouter();
  const { records } = useOpenBook();
  const [query, setQuery] = useState('');
  const more = useMore();
  const { rows: places, onMore } = more.of(useBook((db) => placesByName(db, query, more.ask), [], [query, more.ask]));
  const count = useBook(countPlaces) ?? 0;
  const nameOf = (id: string) => records.jurisdictions.find((j) => j.id === id)?.name ?? id;
  return (
    <>
      <SheetTitle
        aside={
          <Button weight="main" onClick={() => router.push(routes.record('places', 'new'))}>
            New place
          </Button>
        }
      >
        Places
      </SheetTitle>
      <AddressTester />
      {count > 0 && (
        <input
          type="search"
          aria-label="Find in Places"
          placeholder={`Beginning of a name, among ${count}…`}
          value={query}
          onChange={(event) => setQuery(event.target.value)}
          className="mb-3 h-8 w-[280px] border-rule border-b bg-transparent px-1"
        />
      )}
      {places?.length === 0 && (
        <Empty>
          {count === 0
            ? 'No places yet: they say which taxes a delivery address has. Starter packs bring some.'
            : 'No place begins like this.'}
        </Empty>
      )}
      {places !== undefined && places.length > 0 && (
        <ListTable
          caption="Places"
          rows={places}
          onMore={onMore}
          keyOf={(place) => place.id}
          columns={[
            {
              head: 'Place',
              value: (place) => place.name,
              cell: (place) => (
                <Link href={routes.record('places', place.id)} className="underline decoration-rule underline-offset-4">
                  {place.name}
                </Link>
              ),
            },
            { head: 'Stack', cell: (place) => place.stack.map(nameOf).join(' + ') },
            { head: 'Addresses', cell: wordsOf },
          ]}
        />
      )}
    </>
  );
}

/** Says which place an address lies in, or that none or several fit. */
function AddressTester() {
  const [address, setAddress] = useState({ country: '', region: '', postalCode: '', city: '' });
  const near = useBook((db) => placesNear(db, address), [], [address]);
  const set = (part: keyof typeof address) => (event: { target: { value: string } }) =>
    setAddress({ ...address, [part]: event.target.value });
  const found = near === undefined || address.country === '' ? null : findPlace(indexPlaces(near), address);
  return (
    <section aria-label="Which place" className="mb-4 border-rule border-b pb-2">
      <div className="grid grid-cols-4 gap-x-4">
        <ChoiceField
          label="Try an address: country"
          options={COUNTRY_CHOICES}
          value={address.country}
          onChange={set('country')}
        />
        <TextField label="Region" value={address.region} onChange={set('region')} />
        <TextField label="Postal code" value={address.postalCode} onChange={set('postalCode')} />
        <TextField label="Town or city" value={address.city} onChange={set('city')} />
      </div>
      <p role="status" className="min-h-5">
        {found?.kind === 'one' && (
          <>
            It belongs to <strong className="font-semibold">{found.place.name}</strong>.
          </>
        )}
        {found?.kind === 'none' && 'No place covers this address.'}
        {found?.kind === 'several' &&
          `Several places fit equally: ${found.places.map((place) => place.name).join(', ')}. Make one of them narrower.`}
      </p>
    </section>
  );
}

/** One place, by its short code; `new` makes one. */
export function PlacePage({ id }: { readonly id: string }) {
  const router = useRouter();
  const place = useBook((db) => recordOf(db, 'places', id), [id]);
  return (
    <RecordPage id={id} record={place} what="place" nameOf={(p) => p.name}>
      {(known) => <PlaceForm {...(known && { place: known })} onSaved={() => router.push(routes.section('places'))} />}
    </RecordPage>
  );
}
