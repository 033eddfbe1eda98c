import type { PlaceRow } from '@/core/book/rows';
import { addressKeys, type Whereabouts } from '@/core/tax/place';
import type { BookDb } from '../../schema';

/** Places whose name begins with the text, by name; the first ones when nothing is typed. */
export function placesByName(db: BookDb, text: string, limit: number): Promise<PlaceRow[]> {
  const named =
    text.trim() === '' ? db.places.orderBy('name') : db.places.where('name').startsWithIgnoreCase(text.trim());
  return named.limit(limit).toArray();
}

/** Places that an address may lie in. */
export function placesNear(db: BookDb, address: Whereabouts): Promise<PlaceRow[]> {
  return db.places
    .where('keys')
    .anyOf([...addressKeys(address)])
    .distinct()
    .toArray();
}

export function countPlaces(db: BookDb): Promise<number> {
  return db.places.count();
}

export function placeIdsOf(db: BookDb): Promise<string[]> {
  return db.places.toCollection().primaryKeys();
}
