import * as yup from 'yup';
import { neededText, optionalText } from '@/core/kernel/validate';
import { wanted } from '@/core/kernel/wanted';

/** What kind of territory an authority has. */
export type JurisdictionKind = 'country' | 'state' | 'county' | 'city' | 'district' | 'other';

export const JURISDICTION_KINDS: readonly JurisdictionKind[] = [
  'country',
  'state',
  'county',
  'city',
  'district',
  'other',
];

/** An authority's territory; together they form trees with the countries on top. */
export interface Jurisdiction {
  /** Short and stable: `IE`, `US-WA`, `US-WA-KING`. */
  readonly id: string;
  readonly name: string;
  readonly kind: JurisdictionKind;
  /** ISO 3166-1 alpha-2 of a country, ISO 3166-2 of a state or province (`US-WA`); empty below. */
  readonly code: string;
  /** The territory this one lies in; empty for a country. */
  readonly parentId: string;
}

/** A short code that a bookkeeper gives to a record and other records name it by. */
export const shortCode = (sample: string) =>
  optionalText(40)
    .test('needed', wanted({ what: 'short-code', sample }), (v) => v.trim() !== '')
    .matches(/^[A-Z0-9-]*$/, {
      message: wanted('capitals-digits-dashes'),
    });

export const jurisdictionSchema = yup
  .object({
    id: shortCode('US-WA'),
    name: neededText('give-a-name', 80),
    kind: yup.string().oneOf(JURISDICTION_KINDS, wanted('choose-what-it-is')).defined(),
    code: optionalText(6).matches(/^([A-Z]{2}(-[A-Z0-9]{1,3})?)?$/, {
      message: wanted('give-iso-3166'),
    }),
    parentId: optionalText(40),
  })
  .test('iso', wanted('country-of-two-letters'), function iso(j) {
    return j.kind !== 'country' || /^[A-Z]{2}$/.test(j.code) || this.createError({ path: 'code' });
  })
  .test('parent', wanted('say-where-it-lies'), function parent(j) {
    return j.kind === 'country' || j.parentId !== '' || this.createError({ path: 'parentId' });
  })
  .test('top', wanted('country-on-top'), function top(j) {
    return j.kind !== 'country' || j.parentId === '' || this.createError({ path: 'parentId' });
  });

type Known = ReadonlyMap<string, Jurisdiction>;

/** A territory and everything it lies in, itself first. Stops where a parent is missing or a circle closes. */
export function lineage(known: Known, id: string): readonly Jurisdiction[] {
  const found: Jurisdiction[] = [];
  let next = known.get(id);
  while (next !== undefined && !found.includes(next)) {
    found.push(next);
    next = known.get(next.parentId);
  }
  return found;
}

/** Country (ISO 3166-1) and, for a state or what lies in one, region (the part of ISO 3166-2 behind the dash). */
export interface Territory {
  readonly country: string;
  readonly region: string;
}

/** Where a jurisdiction lies: `US-WA-KING` is in country US, region WA; `IE` in country IE. */
export function territoryOf(known: Known, id: string): Territory {
  const codes = lineage(known, id)
    .map((j) => j.code)
    .filter((code) => code !== '');
  const nearest = codes[0] ?? '';
  const [country = '', region = ''] = nearest.split('-');
  return { country, region };
}

/** True when giving `id` this parent would make it lie in itself. */
export function closesCircle(known: Known, id: string, parentId: string): boolean {
  return lineage(known, parentId).some((j) => j.id === id);
}
