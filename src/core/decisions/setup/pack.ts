import type { Decision } from '@/core/book/changes';
import type { IsoDate } from '@/core/kernel/date';
import { accept, refuse } from '@/core/kernel/result';
import { packOf } from '@/core/tax/packs';
import { type Keep, overlapsOf, withoutTaxes } from '@/core/tax/packs/overlap';
import type { Pack } from '@/core/tax/packs/pack';
import { type PackPlan, planPack, planSize } from '@/core/tax/packs/plan';
import { placeKeys } from '@/core/tax/place';
import type { TaxRecords } from '@/core/tax/taxSetup';

/** The pack and the book as they are to be put together, once it is said which of overlapping taxes charges. */
export function settled(pack: Pack, records: TaxRecords, keep: Keep | null): { pack: Pack; records: TaxRecords } {
  const overlaps = overlapsOf(pack, records);
  const ids = (side: Keep) => new Set(overlaps.map((one) => one[side].id));
  return keep === 'theirs'
    ? { pack, records: withoutTaxes(records, ids('ours')) }
    : keep === 'ours'
      ? { pack: withoutTaxes(pack, ids('theirs')), records }
      : { pack, records };
}

/** What an addition is held against. */
export interface PackMaterial {
  readonly records: TaxRecords;
  readonly placeIds: readonly string[];
  /** Newest tax point of entries by tax, for those that overlap. */
  readonly usedUntil: ReadonlyMap<string, IsoDate>;
}

/**
 * Adds what a starter pack has and the book has not. Where both would charge one supply, `keep` says whose tax does;
 * a tax of the book that documents rest on can't give way.
 */
export function addPack(id: string, keep: Keep | null, material: PackMaterial): Decision<PackPlan> {
  const before = material.records;
  const overlaps = overlapsOf(packOf(id), before);
  const [first] = overlaps;
  if (first !== undefined && keep === null)
    return refuse({
      code: 'overlap',
      path: '',
      theirs: `${first.theirs.jurisdictionId} ${first.theirs.name}`,
      ours: `${first.ours.jurisdictionId} ${first.ours.name}`,
    });
  const used = overlaps.find(({ ours }) => material.usedUntil.has(ours.id));
  if (keep === 'theirs' && used !== undefined)
    return refuse({
      code: 'in-use',
      path: '',
      keep: used.ours.name,
    });
  const { pack, records } = settled(packOf(id), before, keep);
  const plan = planPack(pack, records, material.placeIds);
  if (planSize(plan) === 0) return refuse({ code: 'duplicate', path: '', found: pack.title });
  const goneOf = (all: readonly { readonly id: string }[], left: readonly { readonly id: string }[]) => {
    const kept = new Set(left.map((one) => one.id));
    return all.filter((one) => !kept.has(one.id)).map((one) => one.id);
  };
  const taxes = goneOf(before.taxes, records.taxes);
  const taxCodes = goneOf(before.codes, records.codes);
  return accept({
    value: plan,
    changes: {
      put: {
        jurisdictions: plan.jurisdictions,
        taxes: plan.taxes,
        taxCodes: plan.codes,
        places: plan.places.map((place) => ({ ...place, keys: placeKeys(place) })),
        decisionTables: [{ id: 'table', rows: plan.rows }],
        withholdingTypes: plan.withholdingTypes,
      },
      remove: { taxes, taxCodes },
      audit: {
        subject: pack.title,
        before: { taxes: before.taxes.filter(({ id: one }) => taxes.includes(one)), codes: taxCodes },
        after: { known: pack.knownAt, added: planSize(plan) },
      },
    },
  });
}
