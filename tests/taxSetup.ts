import { isoDate } from '@/core/kernel/date';
import type { CustomerKind, NumberState, SupplyKind } from '@/core/tax/decisionTable';
import type { Supply } from '@/core/tax/determine';
import { packOf } from '@/core/tax/packs';
import { recordsOfPacks } from '@/core/tax/packs/plan';
import type { Whereabouts } from '@/core/tax/place';
import type { Registration } from '@/core/tax/registration';
import { prepareSetup, type TaxSetup } from '@/core/tax/taxSetup';
import { demoRegistration } from '@/demo/setup';

/** A registration in a territory, named like it. */
export function registeredIn(jurisdictionId: string, over: Partial<Registration> = {}): Registration {
  const country = jurisdictionId.slice(0, 2);
  return { ...demoRegistration(isoDate('2020-01-01')), id: jurisdictionId, country, jurisdictionId, ...over };
}

/** The records of some packs, added one after the other as Setup does. */
export function recordsOf(
  packs: readonly string[],
  registrations: readonly Registration[],
): ReturnType<typeof recordsOfPacks> {
  return { ...recordsOfPacks(packs.map(packOf)), registrations };
}

/** The set-up of a business with these packs, registered in these territories. */
export function setupOf(packs: readonly string[], territories: readonly string[]): TaxSetup {
  return prepareSetup(
    recordsOf(
      packs,
      territories.map((id) => registeredIn(id)),
    ),
  );
}

/** An address from a short form: `US WA 98101 Seattle`, `DE`, `CA ON`. */
export function at(text: string): Whereabouts {
  const [country = '', region = '', postalCode = '', ...city] = text.split(' ');
  const bare = (part: string) => (part === '-' ? '' : part);
  return { country, region: bare(region), postalCode: bare(postalCode), city: city.join(' ') };
}

/** A supply from a short form: `goods standard business verified`. */
export function supplyOf(words: string, from: string, to: string, day: string): Supply {
  const [supply, taxClass = '', customer, number] = words.split(' ');
  return {
    supply: supply as SupplyKind,
    taxClass,
    customer: customer as CustomerKind,
    number: (number ?? 'none') as NumberState,
    shipFrom: at(from),
    shipTo: at(to),
    day: isoDate(day),
  };
}
