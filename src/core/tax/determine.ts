import type { IsoDate } from '@/core/kernel/date';
import { isSameRegion, readRegion } from '@/core/kernel/region';
import type { CustomerKind, DecisionRow, NumberState, Relation, SupplyKind } from './decisionTable';
import { type Territory, territoryOf } from './jurisdiction';
import { findPlace, type Whereabouts } from './place';
import type { Registration } from './registration';
import { stackKey } from './taxKey';
import { activeOn, type TaxSetup } from './taxSetup';
import { inOneUnion } from './unions';

/** One condition that was looked at, and whether it held. */
export interface Reason {
  readonly held: boolean;
  /** A sentence for the bookkeeper. */
  readonly text: string;
}

/** What is supplied to whom, from where to where, and when. */
export interface Supply {
  readonly supply: SupplyKind;
  /** Class of the item; `standard` for a line that names none. */
  readonly taxClass: string;
  readonly customer: CustomerKind;
  readonly number: NumberState;
  readonly shipFrom: Whereabouts;
  readonly shipTo: Whereabouts;
  /** The tax point. */
  readonly day: IsoDate;
}

/** What the table decides for a supply. */
export interface Verdict {
  /** Id of a code, or the key of a place's stack; empty when nothing was decided. */
  readonly key: string;
  /** Row that decided; empty when none did. */
  readonly rowId: string;
  /** Registration under which the supply is reported; empty when nothing was decided. */
  readonly registrationId: string;
  /** Why nothing was decided and what to do; empty otherwise. */
  readonly problem: string;
}

/** How an address lies to a territory on a day. */
export function relationOf(territory: Territory, address: Whereabouts, day: IsoDate): Relation {
  if (address.country === territory.country) {
    const inside = territory.region === '' || isSameRegion(territory.country, territory.region, address.region);
    return inside ? 'territory' : 'country';
  }
  return inOneUnion(territory.country, address.country, day) ? 'union' : 'outside';
}

const among = <T>(wanted: readonly T[], value: T): boolean => wanted.length === 0 || wanted.includes(value);

interface Candidate {
  readonly registration: Registration;
  readonly from: Relation;
  readonly to: Relation;
  /** It goes to another member state, and is taxed as if it did not. */
  readonly atHome: boolean;
}

/** A sale across the union to somebody who is no business, which is taxed at home below the yearly threshold. */
function isDistanceSale({ supply, customer, number }: Supply, from: Relation, to: Relation): boolean {
  const noBusiness = customer === 'consumer' || number === 'none';
  return noBusiness && supply !== 'service' && from === 'territory' && to === 'union';
}

function candidates(setup: TaxSetup, supply: Supply): readonly Candidate[] {
  const { shipFrom, shipTo, day } = supply;
  return activeOn(setup, day).map((registration) => {
    const territory = territoryOf(setup.jurisdiction, registration.jurisdictionId);
    const from = relationOf(territory, shipFrom, day);
    const to = relationOf(territory, shipTo, day);
    const atHome = registration.unionSalesAtHome === true && isDistanceSale(supply, from, to);
    return { registration, from, to: atHome ? 'territory' : to, atHome };
  });
}

function holdsApart(row: DecisionRow, supply: Supply): boolean {
  return (
    (row.from === '' || row.from <= supply.day) &&
    (row.until === '' || supply.day <= row.until) &&
    among(row.supply, supply.supply) &&
    among(row.taxClass, supply.taxClass) &&
    among(row.customer, supply.customer) &&
    among(row.number, supply.number)
  );
}

function candidateFor(row: DecisionRow, all: readonly Candidate[]): Candidate | undefined {
  return all.find(
    ({ registration, from, to }) =>
      among(row.registeredIn, registration.jurisdictionId) && among(row.shipFrom, from) && among(row.shipTo, to),
  );
}

const undecided = (rowId: string, registrationId: string, problem: string): Verdict => ({
  key: '',
  rowId,
  registrationId,
  problem,
});

function stackVerdict(setup: TaxSetup, row: DecisionRow, registration: Registration, supply: Supply): Verdict {
  const { shipTo, taxClass } = supply;
  const where = [shipTo.city, shipTo.region, shipTo.postalCode, shipTo.country].filter(Boolean).join(' ');
  const found = findPlace(setup.placeIndex, shipTo);
  if (found.kind === 'one')
    return { key: stackKey(found.place.id, taxClass), rowId: row.id, registrationId: registration.id, problem: '' };
  return undecided(
    row.id,
    registration.id,
    found.kind === 'none'
      ? `No place covers the address ${where}: add it to a place in Setup, or choose the tax yourself.`
      : `Several places cover the address ${where}: ${found.places.map((p) => p.name).join(', ')}. Make one of them narrower in Setup, or choose the tax yourself.`,
  );
}

/**
 * What the decision table says of a supply: the first row whose conditions hold for one of our
 * registrations in force on the day.
 */
export function determine(setup: TaxSetup, supply: Supply): Verdict {
  const all = candidates(setup, supply);
  const { country, region } = supply.shipTo;
  // A region that is not known would silently be taxed as any other one.
  if (readRegion(country, region) === null && all.some(({ registration }) => registration.country === country))
    return undecided(
      '',
      '',
      `The region ${region} of the address is not known in ${country}: choose it from the list at the customer, or choose the tax yourself.`,
    );
  for (const row of setup.rows) {
    if (!holdsApart(row, supply)) continue;
    const hit = candidateFor(row, all);
    if (hit === undefined) continue;
    const { registration } = hit;
    if (row.result.kind === 'code')
      return { key: row.result.code, rowId: row.id, registrationId: registration.id, problem: '' };
    if (row.result.kind === 'refuse') return undecided(row.id, registration.id, row.result.message);
    return stackVerdict(setup, row, registration, supply);
  }
  return undecided(
    '',
    '',
    all.length === 0
      ? 'No registration is in force on this day: choose the tax yourself, or correct the registrations in Setup.'
      : setup.rows.length === 0
        ? 'The decision table is empty: add the starter pack of your country in Setup, or choose the tax yourself.'
        : 'No row of the decision table catches this: choose the tax yourself, or add a row in Setup.',
  );
}

/**
 * `determine` for many supplies: answers are remembered by what they rest on. Addresses are compared
 * as objects, so lines of one customer should share theirs.
 */
export function determiner(setup: TaxSetup): (supply: Supply) => Verdict {
  const known = new WeakMap<Whereabouts, Map<string, Verdict>>();
  const origins = new Map<Whereabouts, number>();
  return (supply) => {
    const { shipFrom, shipTo, taxClass, customer, number, day } = supply;
    const origin = origins.get(shipFrom) ?? origins.size;
    origins.set(shipFrom, origin);
    const verdicts = known.get(shipTo) ?? new Map<string, Verdict>();
    known.set(shipTo, verdicts);
    const key = `${origin}|${supply.supply}|${taxClass}|${customer}|${number}|${day}`;
    const verdict = verdicts.get(key) ?? determine(setup, supply);
    verdicts.set(key, verdict);
    return verdict;
  };
}

const RELATION_WORDS: Readonly<Record<Relation, string>> = {
  territory: 'inside',
  country: 'elsewhere in the country of',
  union: 'in the customs union of',
  outside: 'outside',
};

const NUMBER_WORDS: Readonly<Record<NumberState, string>> = {
  verified: 'has a verified tax number',
  unverified: 'has a tax number that was not verified',
  none: 'has no tax number',
};

const oneOf = (values: readonly string[]): string => values.join(' or ');

/** So many territories are named; more are counted. */
const FEW = 4;

const addressWords = ({ country, region }: Supply['shipTo']) => (region === '' ? country : `${region}, ${country}`);

/** The conditions of a row, each with whether it held and in words. Conditions of "any" are not named. */
function conditionsOf(setup: TaxSetup, row: DecisionRow, supply: Supply, all: readonly Candidate[]): readonly Reason[] {
  const nameOf = (id: string) => setup.jurisdiction.get(id)?.name ?? id;
  const reasons: Reason[] = [];
  const say = (asked: boolean, held: boolean, text: string) => {
    if (asked) reasons.push({ held, text });
  };
  say(row.from !== '', row.from <= supply.day, `the tax point is on or after ${row.from}`);
  say(row.until !== '', supply.day <= row.until, `the tax point is on or before ${row.until}`);
  say(
    row.supply.length > 0,
    among(row.supply, supply.supply),
    `the supply is ${oneOf(row.supply)} (it is ${supply.supply})`,
  );
  say(
    row.taxClass.length > 0,
    among(row.taxClass, supply.taxClass),
    `the class is ${oneOf(row.taxClass)} (it is ${supply.taxClass})`,
  );
  say(
    row.customer.length > 0,
    among(row.customer, supply.customer),
    `the customer is a ${oneOf(row.customer)} (it is a ${supply.customer})`,
  );
  say(
    row.number.length > 0,
    among(row.number, supply.number),
    `the customer ${row.number.map((n) => NUMBER_WORDS[n]).join(' or ')} (it ${NUMBER_WORDS[supply.number]})`,
  );
  const ours = all.filter(({ registration }) => among(row.registeredIn, registration.jurisdictionId));
  const of = row.registeredIn.length;
  const where = of > FEW ? `one of ${of} territories` : oneOf(row.registeredIn.map(nameOf));
  const ourOwn =
    of > FEW && ours.length > 0 ? ` (${ours.map((one) => nameOf(one.registration.jurisdictionId)).join(', ')})` : '';
  say(of > 0, ours.length > 0, `we are registered in ${where}${ourOwn}`);
  const best = candidateFor(row, all) ?? ours[0];
  if (best !== undefined) {
    const { from, to, registration, atHome } = best;
    const home = nameOf(registration.jurisdictionId);
    const far = (wanted: readonly Relation[]) => oneOf(wanted.map((r) => RELATION_WORDS[r]));
    say(
      row.shipFrom.length > 0,
      among(row.shipFrom, from),
      `the origin is ${far(row.shipFrom)} ${home} (${addressWords(supply.shipFrom)} is ${RELATION_WORDS[from]} it)`,
    );
    say(
      row.shipTo.length > 0,
      among(row.shipTo, to),
      `the destination is ${far(row.shipTo)} ${home} (${addressWords(supply.shipTo)} ${atHome ? 'counts as home, as sales to consumers in the union are below the threshold' : `is ${RELATION_WORDS[to]} it`})`,
    );
  }
  return reasons;
}

function resultWords(setup: TaxSetup, row: DecisionRow, verdict: Verdict): string {
  if (verdict.problem !== '') return verdict.problem;
  if (row.result.kind === 'code') return `so the code is ${verdict.key}`;
  const placeId = verdict.key.slice(1, verdict.key.lastIndexOf('/'));
  return `so the stack of ${setup.placeIndex.byId.get(placeId)?.name ?? placeId} applies`;
}

/**
 * Why `determine` says what it says: for each row before the deciding one the first condition that
 * failed, then every condition of the deciding row and its result. Rows for registrations we do not
 * have are counted in one sentence. The last reason holds exactly when something was decided.
 */
export function explainDecision(setup: TaxSetup, supply: Supply): readonly Reason[] {
  const verdict = determine(setup, supply);
  const all = candidates(setup, supply);
  const ours = new Set(all.map(({ registration }) => registration.jurisdictionId));
  const reasons: Reason[] = [];
  let elsewhere = 0;
  for (const row of setup.rows) {
    if (row.id === verdict.rowId) break;
    if (row.registeredIn.length > 0 && !row.registeredIn.some((id) => ours.has(id))) {
      elsewhere++;
      continue;
    }
    const failed = conditionsOf(setup, row, supply, all).find((reason) => !reason.held);
    if (failed !== undefined) reasons.push({ held: false, text: `not “${row.name}”: it asks that ${failed.text}` });
  }
  if (elsewhere > 0)
    reasons.push({
      held: false,
      text: `${elsewhere} ${elsewhere === 1 ? 'row speaks' : 'rows speak'} of registrations we do not have on this day`,
    });
  const row = setup.rows.find((r) => r.id === verdict.rowId);
  if (row === undefined) return [...reasons, { held: false, text: verdict.problem }];
  const held = conditionsOf(setup, row, supply, all).map((reason) => ({ held: true, text: reason.text }));
  return [
    ...reasons,
    { held: true, text: `row “${row.name}” applies` },
    ...held,
    { held: verdict.problem === '', text: resultWords(setup, row, verdict) },
  ];
}
