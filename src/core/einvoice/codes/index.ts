import { COUNTRIES } from '@/core/kernel/country';
import { isCurrency } from '@/core/kernel/currency';
import lists from './lists.json';

/** A public code list: its name, edition, and whether a code is in it. */
export interface CodeList {
  readonly name: string;
  readonly edition: string;
  readonly has: (code: string) => boolean;
}

interface ListData {
  readonly name: string;
  readonly edition: string;
  /** Codes apart by blanks. */
  readonly codes?: string;
  /** Numbers from and until, of the same width, apart by blanks. */
  readonly ranges?: string;
  /** Shape of codes that are too many to be listed. */
  readonly shape?: string;
}

function listOf({ name, edition, codes = '', ranges = '', shape = '' }: ListData): CodeList {
  const known = new Set(codes.split(' '));
  const spans = ranges.split(' ').map((range) => range.split('-'));
  const pattern = shape === '' ? null : new RegExp(shape);
  const inRange = (code: string) =>
    ranges !== '' &&
    /^\d+$/.test(code) &&
    spans.some(([from = '', until = '']) => code.length === from.length && code >= from && code <= until);
  return {
    name,
    edition,
    has: (code) => code !== '' && (known.has(code) || inRange(code) || pattern?.test(code) === true),
  };
}

type ListName = keyof typeof lists;

export const CODES = Object.fromEntries(
  Object.entries(lists as Readonly<Record<string, ListData>>).map(([name, data]) => [name, listOf(data)]),
) as Readonly<Record<ListName, CodeList>>;

/** ISO 3166-1 with XI, which Northern Ireland trades under, and 1A for Kosovo as the standard lists it. */
const TERRITORIES = new Set([...COUNTRIES, 'XI', '1A']);
export const COUNTRY_CODES: CodeList = { name: 'ISO 3166-1', edition: '2020', has: (code) => TERRITORIES.has(code) };
/** Funds, metals and currencies of the last years, which a file may still name though no document here is written in them. */
const OTHER_CURRENCIES = new Set(
  'BOV CHE CHW COU CUC HRK MXV SLL USN UYI UYW XAG XAU XBA XBB XBC XBD XDR XPD XPT XSU XTS XUA XXX ZWL'.split(' '),
);
export const CURRENCY_CODES: CodeList = {
  name: 'ISO 4217',
  edition: '2024, with those withdrawn since 2020',
  has: (code) => isCurrency(code) || OTHER_CURRENCIES.has(code),
};

/** Every list with its edition, for the docs. */
export const ALL_LISTS: readonly CodeList[] = [...Object.values(CODES), COUNTRY_CODES, CURRENCY_CODES];
