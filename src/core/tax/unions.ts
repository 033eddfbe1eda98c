import type { IsoDate } from '@/core/kernel/date';

interface Membership {
  readonly union: string;
  readonly country: string;
  readonly from: string;
  /** Last day; empty while it lasts. */
  readonly until: string;
}

const EU_MEMBERS: Readonly<Record<string, string>> = {
  '1993-01-01': 'BE DE DK ES FR GR IE IT LU NL PT',
  '1995-01-01': 'AT FI SE',
  '2004-05-01': 'CY CZ EE HU LT LV MT PL SI SK',
  '2007-01-01': 'BG RO',
  '2013-07-01': 'HR',
};

/**
 * Customs unions and their members by date. EU: Directive 2006/112/EC Art. 5, accession treaties; the
 * United Kingdom left the VAT territory at the end of 2020 (Agreement of 17 October 2019, Art. 126).
 */
const MEMBERSHIPS: readonly Membership[] = [
  ...Object.entries(EU_MEMBERS).flatMap(([from, countries]) =>
    countries.split(' ').map((country) => ({ union: 'EU', country, from, until: '' })),
  ),
  { union: 'EU', country: 'GB', from: '1993-01-01', until: '2020-12-31' },
];

const BY_COUNTRY = new Map(MEMBERSHIPS.map((membership) => [membership.country, membership]));

/** The customs union a country belongs to on a day, or null: `FR` → `EU`, `GB` on 2021-01-01 → null. */
export function unionOf(country: string, day: IsoDate): string | null {
  const membership = BY_COUNTRY.get(country);
  if (membership === undefined || day < membership.from) return null;
  return membership.until !== '' && day > membership.until ? null : membership.union;
}

/** True when two different countries are in one customs union on the day. */
export function inOneUnion(a: string, b: string, day: IsoDate): boolean {
  const union = unionOf(a, day);
  return union !== null && union === unionOf(b, day);
}
