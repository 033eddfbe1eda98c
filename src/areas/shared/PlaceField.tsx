'use client';

import { findPlace, indexPlaces, type Whereabouts } from '@/core/tax/place';
import { placesNear } from '@/store/setup/queries/places';
import { ChoiceField } from '@/ui/Field';
import { useBook } from '../shell/book';

interface PlaceFieldProps {
  readonly address: Whereabouts;
  /** Id of the chosen place; empty while the address decides. */
  readonly value: string;
  readonly onChange: (placeId: string) => void;
}

/** The place whose taxes an address takes, and others that may cover it; nothing where no place is near. */
export function PlaceField({ address, value, onChange }: PlaceFieldProps) {
  const { country, region, postalCode, city } = address;
  const near = useBook(
    (db) => placesNear(db, { country, region, postalCode, city }),
    [country, region, postalCode, city],
  );
  if (near === undefined || near.length === 0) return null;
  const found = findPlace(indexPlaces(near), { country, region, postalCode, city });
  const candidates = found.kind === 'several' ? found.places : near;
  const own = found.kind === 'one' ? `by the address: ${found.place.name}` : 'by the address';
  return (
    <ChoiceField
      label="Place of taxation"
      hint={
        found.kind === 'several' && value === ''
          ? `${found.places.map(({ name }) => name).join(' and ')} cover this address: choose one`
          : 'Whose local taxes are charged'
      }
      className="max-w-[420px]"
      options={[['', own] as const, ...candidates.map(({ id, name }) => [id, name] as const)]}
      value={candidates.some(({ id }) => id === value) ? value : ''}
      onChange={(event) => onChange(event.target.value)}
    />
  );
}
