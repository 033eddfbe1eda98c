import type { DraftLine } from '@/core/documents/draft';
import type { Setting } from '@/core/documents/setting';
import type { IsoDate } from '@/core/kernel/date';
import { readStackKey, resolveTax, stackKey } from '@/core/tax/resolve';

/** What lines may carry: every code by the name it has on the day, and the stacks of places near at hand. */
export function taxChoices(
  lines: readonly DraftLine[],
  day: IsoDate | null,
  { setup }: Setting,
): readonly (readonly [string, string])[] {
  const nameOf = (key: string, fallback: string): string => {
    const tax = day === null ? null : resolveTax(setup, key, day, () => null, 'en');
    return tax === null || 'problem' in tax ? fallback.replace('{rate}', '').trim() : tax.name;
  };
  const classes = new Set(lines.map((line) => line.taxClass));
  const stacks = setup.places.flatMap((place) => [...classes].map((name) => stackKey(place.id, name)));
  const used = lines.map((line) => line.taxCode).filter((key) => readStackKey(key) !== null);
  const codes = setup.codes.map((code) => [code.id, nameOf(code.id, code.name)] as const);
  return [
    ...codes,
    ...[...new Set([...used, ...stacks])].map((key) => {
      const read = readStackKey(key);
      const name = nameOf(key, read?.placeId ?? key);
      return [key, read === null || classes.size < 2 ? name : `${name} (${read.taxClass})`] as const;
    }),
  ];
}
