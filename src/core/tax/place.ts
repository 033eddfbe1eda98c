import * as yup from 'yup';
import { isCountry } from '@/core/kernel/country';
import { isSameRegion } from '@/core/kernel/region';
import { neededText, optionalText } from '@/core/kernel/validate';
import { wanted } from '@/core/kernel/wanted';
import { shortCode } from './jurisdiction';

/** What an address must hold to lie in a place. Empty parts are not looked at. */
export interface PlaceMatch {
  /** ISO 3166-1 alpha-2; always needed. */
  readonly country: string;
  /** State or province as addresses write it: `WA`. */
  readonly region: string;
  /** First and last postal code; compared letter by letter over their own length, blanks dropped. */
  readonly postalFrom: string;
  readonly postalTo: string;
  readonly city: string;
}

/** Where supplies are taxed: an ordered stack of jurisdictions, found by address. */
export interface Place {
  readonly id: string;
  readonly name: string;
  /** Ids of jurisdictions, widest first. */
  readonly stack: readonly string[];
  /** Whether its taxes are rounded as one rate that is then split, or each on its own. */
  readonly rounding: 'together' | 'apart';
  readonly matches: readonly PlaceMatch[];
}

const matchSchema = yup
  .object({
    country: yup
      .string()
      .defined()
      .test('country', wanted('choose-country'), (v) => isCountry(v)),
    region: optionalText(40),
    postalFrom: optionalText(12),
    postalTo: optionalText(12),
    city: optionalText(80),
  })
  .test('range', wanted('give-postal-codes'), function range(match) {
    const [from, to] = [postal(match.postalFrom), postal(match.postalTo)];
    const fine = from.length === to.length && from <= to;
    return fine || this.createError({ path: `${this.path}.postalTo` });
  });

export const placeSchema = yup
  .object({
    id: shortCode('WA-SEATTLE'),
    name: neededText('give-a-name', 80),
    stack: yup.array().of(neededText('give-a-jurisdiction')).min(1, wanted('choose-a-jurisdiction-at-least')).defined(),
    rounding: yup.string().oneOf(['together', 'apart'], wanted('choose-rounding')).defined(),
    matches: yup.array().of(matchSchema).min(1, wanted('say-which-addresses')).defined(),
  })
  .test('twice', wanted('jurisdiction-twice'), function twice(place) {
    const at = place.stack.findIndex((id, i) => place.stack.indexOf(id) !== i);
    return at < 0 || this.createError({ path: `stack[${at}]` });
  });

/** An address as places look at it. */
export interface Whereabouts {
  readonly country: string;
  readonly region: string;
  readonly postalCode: string;
  readonly city: string;
  /** The place that was chosen for it, where several fit; missing while the address itself decides. */
  readonly placeId?: string;
}

export type PlaceFound =
  | { readonly kind: 'one'; readonly place: Place }
  | { readonly kind: 'none' }
  /** Several places fit equally well; which one is meant must be said. */
  | { readonly kind: 'several'; readonly places: readonly Place[] };

interface Entry {
  readonly place: Place;
  readonly match: PlaceMatch;
  readonly weight: number;
}

/** Places sorted for finding, by `placeKeys`. */
export interface PlaceIndex {
  readonly byId: ReadonlyMap<string, Place>;
  readonly byKey: ReadonlyMap<string, readonly Entry[]>;
}

function postal(code: string): string {
  return code.replace(/[\s-]/g, '').toUpperCase();
}

const plain = (text: string): string => text.trim().toLowerCase();

/** A postal code is narrower than a city, a city narrower than a region. */
function weightOf(match: PlaceMatch): number {
  return (match.postalFrom === '' ? 0 : 4) + (match.city === '' ? 0 : 2) + (match.region === '' ? 0 : 1);
}

function commonStart(a: string, b: string): string {
  let i = 0;
  while (i < a.length && a[i] === b[i]) i++;
  return a.slice(0, i);
}

const keyOf = ({ country, postalFrom, postalTo }: PlaceMatch): string =>
  `${country}|${commonStart(postal(postalFrom), postal(postalTo))}`;

/** Keys a place is found by: country, and the letters its postal codes have in common at their start. */
export function placeKeys(place: Place): readonly string[] {
  return [...new Set(place.matches.map(keyOf))];
}

/** Keys of all places that an address may lie in: `IE|`, `IE|H`, `IE|H9`, … */
export function addressKeys(address: Whereabouts): readonly string[] {
  const code = postal(address.postalCode);
  return Array.from({ length: code.length + 1 }, (_, length) => `${address.country}|${code.slice(0, length)}`);
}

/** Prepares places for finding; built once for many addresses. */
export function indexPlaces(places: readonly Place[]): PlaceIndex {
  const byKey = new Map<string, Entry[]>();
  for (const place of places)
    for (const raw of place.matches) {
      const match = { ...raw, postalFrom: postal(raw.postalFrom), postalTo: postal(raw.postalTo) };
      const entries = byKey.get(keyOf(match)) ?? [];
      byKey.set(keyOf(match), entries);
      entries.push({ place, match, weight: weightOf(match) });
    }
  return { byId: new Map(places.map((place) => [place.id, place])), byKey };
}

function fits({ region, postalFrom, postalTo, city }: PlaceMatch, address: Whereabouts, code: string): boolean {
  if (region !== '' && !isSameRegion(address.country, region, address.region)) return false;
  if (city !== '' && plain(city) !== plain(address.city)) return false;
  const part = code.slice(0, postalFrom.length);
  return part.length === postalFrom.length && part >= postalFrom && part <= postalTo;
}

/** True when a range of postal codes holds all of another and more. */
function isWider(a: PlaceMatch, b: PlaceMatch): boolean {
  const length = a.postalFrom.length;
  if (length > b.postalFrom.length || (a.postalFrom === b.postalFrom && a.postalTo === b.postalTo)) return false;
  return a.postalFrom <= b.postalFrom.slice(0, length) && b.postalTo.slice(0, length) <= a.postalTo;
}

/** The place an address lies in: the one that was chosen, else the narrowest that fits. Two that fit equally are both named. */
export function findPlace(index: PlaceIndex, address: Whereabouts): PlaceFound {
  const chosen = index.byId.get(address.placeId ?? '');
  if (chosen !== undefined) return { kind: 'one', place: chosen };
  const code = postal(address.postalCode);
  let best = -1;
  let fitting: Entry[] = [];
  for (const key of addressKeys(address))
    for (const entry of index.byKey.get(key) ?? []) {
      if (entry.weight < best || !fits(entry.match, address, code)) continue;
      if (entry.weight > best) fitting = [];
      best = entry.weight;
      fitting.push(entry);
    }
  const narrowest = fitting.filter(({ match }) => !fitting.some((other) => isWider(match, other.match)));
  const found = [...new Set(narrowest.map(({ place }) => place))].sort((a, b) => (a.id < b.id ? -1 : 1));
  const [first, second] = found;
  if (first === undefined) return { kind: 'none' };
  return second === undefined ? { kind: 'one', place: first } : { kind: 'several', places: found };
}
