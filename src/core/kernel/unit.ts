import * as yup from 'yup';
import { neededText } from './validate';
import { wanted } from './wanted';

/*
 * A unit of a line is a code of UN/ECE Recommendation 20 (`HUR`), or such a code with a word of our own behind a colon
 * (`C62:reel`): the word prints, the code goes into e-invoices.
 */

/** Units of UN/ECE Recommendation 20 that are offered, with the word that is shown. */
export const UNITS: Readonly<Record<string, string>> = {
  C62: 'each',
  HUR: 'hour',
  DAY: 'day',
  WEE: 'week',
  MON: 'month',
  KGM: 'kg',
  MTR: 'm',
  LTR: 'litre',
  KMT: 'km',
  SET: 'set',
};

/** A unit that the business has a word of its own for. */
export interface OwnUnit {
  readonly word: string;
  /** UN/ECE Recommendation 20 code that stands for it in e-invoices; `C62`, one, where none fits better. */
  readonly code: string;
}

export const ownUnitSchema = yup.object({
  word: neededText('give-a-name', 20).matches(/^[^:]*$/, wanted('give-plain-word')),
  code: yup
    .string()
    .matches(/^[A-Z0-9]{1,3}$/, wanted('give-unit-code'))
    .defined(),
});

const OWN = /^([A-Z0-9]{1,3}):([^:]{1,20})$/;

/** All units that a line or an item may be given: how it is held, and its word. */
export function unitsOf(own: readonly OwnUnit[] = []): readonly (readonly [string, string])[] {
  return [...Object.entries(UNITS), ...own.map(({ word, code }) => [`${code}:${word}`, word] as const)];
}

/** Whether a unit is one of those offered everywhere, or an own one in its form. */
export function isUnit(unit: string): boolean {
  return Object.hasOwn(UNITS, unit) || OWN.test(unit);
}

/** The code of Recommendation 20 of a unit: `C62` of `C62:reel`. */
export function unitCode(unit: string): string {
  return OWN.exec(unit)?.[1] ?? unit;
}

/** The word for a unit in `words` by code, an own word as it is; its code where there is none. */
export function unitWord(unit: string, words: Readonly<Record<string, string>> = UNITS): string {
  return OWN.exec(unit)?.[2] ?? words[unit] ?? unit;
}
