import { accept, refuse } from '@/core/kernel/result';
import { packOf } from '@/core/tax/packs';
import { type PackPlan, planPack, planSize } from '@/core/tax/packs/plan';
import { placeKeys } from '@/core/tax/place';
import type { TaxRecords } from '@/core/tax/taxSetup';
import type { Decision } from './changes';

/** Adds what a starter pack has and the book has not. */
export function addPack(id: string, records: TaxRecords, placeIds: readonly string[]): Decision<PackPlan> {
  const pack = packOf(id);
  const plan = planPack(pack, records, placeIds);
  if (planSize(plan) === 0) return refuse({ code: 'duplicate', path: '', found: pack.title });
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
      audit: { subject: pack.title, after: { known: pack.knownAt, added: planSize(plan) } },
    },
  });
}
