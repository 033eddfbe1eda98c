import type { IsoDate } from '@/core/kernel/date';
import type { Customer } from '@/core/parties/customer';
import type { FrozenTax } from './content';
import type { Draft, DraftOverride, HeldTaxes } from './draft';
import { datesOf, ratesOf, resolveKey, taxKeysOf } from './lineTax';
import type { Setting } from './setting';

/** A tax whose rates in the set-up are no longer those that the draft was kept with. */
export interface ChangedTax {
  readonly held: FrozenTax;
  readonly now: FrozenTax;
}

/** The taxes that a draft's lines carry, with the rates of its tax point. */
export interface DraftTaxes {
  readonly taxes: readonly FrozenTax[];
  /** Key of a line's tax and why it can't be resolved. */
  readonly unresolved: ReadonlyMap<string, string>;
  readonly changed: readonly ChangedTax[];
}

function heldOn(draft: Draft, day: IsoDate): ReadonlyMap<string, FrozenTax> {
  const { held } = draft;
  const fits = held !== null && held.taxPoint === day && held.customerId === draft.customerId;
  return new Map(fits ? held.taxes.map((tax) => [tax.code, tax]) : []);
}

/** Taxes the draft was kept with stay as they were; a set-up that says something else is named beside them. */
export function draftTaxes(draft: Draft, customer: Customer | null, setting: Setting): DraftTaxes {
  const day = datesOf(draft).taxPoint;
  const taxes: FrozenTax[] = [];
  const unresolved = new Map<string, string>();
  const changed: ChangedTax[] = [];
  if (day === null) return { taxes, unresolved, changed };
  const held = heldOn(draft, day);
  for (const key of taxKeysOf(draft)) {
    const now = resolveKey(key, day, customer, setting);
    const before = held.get(key);
    if ('problem' in now) {
      unresolved.set(key, now.problem);
      continue;
    }
    if (before !== undefined && ratesOf(before) !== ratesOf(now)) {
      taxes.push(before);
      changed.push({ held: before, now });
    } else taxes.push(now);
  }
  return { taxes, unresolved, changed };
}

/** What a draft holds when it is kept: rates it held before stay, others are taken from the set-up. */
export function holdTaxes(draft: Draft, customer: Customer | null, setting: Setting): HeldTaxes | null {
  const day = datesOf(draft).taxPoint;
  if (day === null) return null;
  return { taxPoint: day, customerId: draft.customerId, taxes: draftTaxes(draft, customer, setting).taxes };
}

/** Taxes typed by hand whose tax the draft still carries, with their place in it. */
export function liveOverrides(
  draft: Draft,
  taxes: readonly FrozenTax[],
): readonly { readonly override: DraftOverride; readonly index: number }[] {
  const families = new Map(taxes.map((tax) => [tax.code, new Set(tax.components?.map((c) => c.family))]));
  return draft.overrides.flatMap((override, index) =>
    families.get(override.tax)?.has(override.family) === true ? [{ override, index }] : [],
  );
}
