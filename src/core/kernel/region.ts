import REGIONS from './data/regions.json';

/** States and provinces by ISO 3166-2, for countries whose taxes go by them; made by `npm run data:regions`. */
const LISTS: Readonly<Record<string, Readonly<Record<string, string>>>> = REGIONS;

const folded = (text: string): string =>
  text
    .normalize('NFD')
    .replace(/\p{Mn}/gu, '')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim();

/** Codes by everything a region may be called: `KA`, `IN-KA`, `Karnataka`. Built once for each country. */
const known = new Map<string, ReadonlyMap<string, string>>();

function namesOf(country: string, list: Readonly<Record<string, string>>): ReadonlyMap<string, string> {
  const before = known.get(country);
  if (before !== undefined) return before;
  const names = new Map<string, string>();
  for (const [code, name] of Object.entries(list)) {
    // A name may stand with an older one in brackets.
    for (const said of [code, `${country} ${code}`, name, ...name.split(/[()]/)])
      if (folded(said) !== '') names.set(folded(said), code);
  }
  known.set(country, names);
  return names;
}

/** The regions of a country, code and name; empty for a country whose regions do not matter. */
export function regionsOf(country: string): readonly (readonly [code: string, name: string])[] {
  return Object.entries(LISTS[country] ?? {});
}

/**
 * The region that an address means: the code of ISO 3166-2 for a code or a name of it (`Karnataka` and
 * `KA` are `KA`), what was written where a country's regions are not listed, null for one that a listed
 * country does not have. Nothing written is nothing.
 */
export function readRegion(country: string, text: string): string | null {
  const written = text.trim();
  const list = LISTS[country];
  // Nearly every address holds the code itself.
  if (written === '' || list === undefined || Object.hasOwn(list, written)) return written;
  return namesOf(country, list).get(folded(written)) ?? null;
}

/** True when two ways of writing mean one region of a country. */
export function isSameRegion(country: string, a: string, b: string): boolean {
  const [one, other] = [readRegion(country, a), readRegion(country, b)];
  return one !== null && other !== null && (one === other || folded(one) === folded(other));
}
