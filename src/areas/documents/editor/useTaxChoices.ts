'use client';

import { useMemo } from 'react';
import type { Draft } from '@/core/documents/draft';
import { datesOf } from '@/core/documents/lineTax';
import type { Setting } from '@/core/documents/setting';
import type { IsoDate } from '@/core/kernel/date';
import { territoryOf } from '@/core/tax/jurisdiction';
import { resolveTax } from '@/core/tax/resolve';
import { plainName } from '@/core/tax/taxCode';
import { isChangedKey, readStackKey, stackKey } from '@/core/tax/taxKey';
import { countryName } from '../../shared/choices';

/** Key of what a line may carry, and its name. */
export type TaxChoice = readonly [string, string];

const NONE: readonly TaxChoice[] = [];

/** Every code by the name it has on the day, and the stacks of places near at hand. */
function taxChoices(
  classes: readonly string[],
  used: readonly string[],
  day: IsoDate | null,
  { setup }: Setting,
): readonly TaxChoice[] {
  const nameOf = (key: string, fallback: string): string => {
    const tax = day === null ? null : resolveTax(setup, key, day, () => null, 'en');
    return tax === null || 'problem' in tax ? fallback : tax.name;
  };
  const near = setup.places.flatMap((place) => classes.map((name) => stackKey(place.id, name)));
  const stacks = [...new Set([...used, ...near])].map((key): TaxChoice => {
    const read = readStackKey(key);
    const name = nameOf(key, read?.placeId ?? key);
    return [key, read === null || isChangedKey(key) || classes.length < 2 ? name : `${name} (${read.taxClass})`];
  });
  return [
    ...toldApart(
      setup.codes.map((code): TaxChoice => [code.id, nameOf(code.id, plainName(code))]),
      setup,
    ),
    ...stacks,
  ];
}

/** Codes that are called the same, as the standard rates of two countries, with the country or their own ids beside. */
function toldApart(choices: readonly TaxChoice[], setup: Setting['setup']): readonly TaxChoice[] {
  const count = new Map<string, number>();
  for (const [, name] of choices) count.set(name, (count.get(name) ?? 0) + 1);
  return choices.map(([key, name]) => {
    if (count.get(name) === 1) return [key, name];
    const tax = setup.tax.get(setup.code.get(key)?.components[0]?.taxId ?? '');
    const country = tax === undefined ? '' : territoryOf(setup.jurisdiction, tax.jurisdictionId).country;
    return [key, `${name} · ${country === '' ? key : countryName(country)}`];
  });
}

const distinct = (values: readonly string[]): string => [...new Set(values)].join('\n');

/**
 * What the lines of a draft may carry. The list stays the very same while typing changes none of
 * what it rests on, so that the lines that are not written in need not be drawn again.
 */
export function useTaxChoices(draft: Draft, setting: Setting | null): readonly TaxChoice[] {
  const day = datesOf(draft).taxPoint;
  const classes = distinct(draft.lines.map((line) => line.taxClass));
  const used = distinct(
    draft.lines.map((line) => line.taxCode).filter((key) => readStackKey(key) !== null || isChangedKey(key)),
  );
  return useMemo(
    () => (setting === null ? NONE : taxChoices(classes.split('\n'), used.split('\n').filter(Boolean), day, setting)),
    [classes, used, day, setting],
  );
}
