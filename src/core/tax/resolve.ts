import type { IsoDate } from '@/core/kernel/date';
import { type Decimal, decimal, decimalOf, ratioOf, trimmed } from '@/core/kernel/decimal';
import { add, divide, multiply, ONE, type Ratio, whole, ZERO } from '@/core/kernel/ratio';
import type { Category } from './calcTypes';
import { lineage } from './jurisdiction';
import type { Place } from './place';
import { EXEMPT_CLASS, rateOn, type Tax, type TaxRate } from './tax';
import { type CodeComponent, legendIn, type TaxCode } from './taxCode';
import { isChangedKey, readStackKey, readTaxKey, type TaxKey } from './taxKey';
import { activeOn, type TaxSetup } from './taxSetup';

/** Why a customer is charged nothing in a jurisdiction. */
export interface Relief {
  /** Number of the exemption certificate; empty when the customer is simply not liable. */
  readonly certificate: string;
  readonly reason: string;
}

/** One tax of a line with the rate that the tax point chose. */
export interface ResolvedComponent {
  readonly taxId: string;
  readonly taxName: string;
  readonly jurisdictionId: string;
  readonly jurisdictionName: string;
  readonly family: string;
  readonly compound: boolean;
  /** Percent; empty for an amount per unit. Zero where relief was given. */
  readonly percent: Decimal | '';
  readonly perUnit: Decimal | '';
  /** The rate that would apply without the relief; empty when there is none. */
  readonly insteadOf: Decimal | '';
  readonly since: IsoDate;
  readonly source: string;
  readonly relief: Relief | null;
}

/** What a line carries, with everything a document must keep of it. */
export interface ResolvedTax {
  /** Id of the code, or the key of a place's stack. */
  readonly code: string;
  readonly name: string;
  readonly category: Category;
  /** All percentages together, as the customer sees them: 6.5, 0.4, 1.1 and 2.15 are 10.15. */
  readonly percent: Decimal;
  /** Day of the youngest of its rates. */
  readonly since: IsoDate;
  readonly legend: string;
  readonly exemptionCode: string;
  readonly boxBase: string;
  readonly boxTax: string;
  readonly components: readonly ResolvedComponent[];
}

/** What the customer's side says of a jurisdiction on a day; null when tax is charged there. */
export type ReliefIn = (jurisdictionId: string) => Relief | null;

/** A line's tax could not be resolved: what is missing, as a sentence. */
export interface Unresolved {
  readonly problem: string;
}

type Part = { readonly tax: Tax; readonly rate: TaxRate; readonly family: string; readonly compound: boolean };

function effectivePercent(components: readonly ResolvedComponent[]): Decimal {
  let sum: Ratio = ZERO;
  for (const { percent, compound } of components) {
    if (percent === '') continue;
    const rate = divide(ratioOf(percent), whole(100n));
    sum = add(sum, compound ? multiply(rate, add(ONE, sum)) : rate);
  }
  return trimmed(decimalOf(multiply(sum, whole(100n))));
}

function componentsOf(setup: TaxSetup, parts: readonly Part[], reliefIn: ReliefIn): readonly ResolvedComponent[] {
  return parts.map(({ tax, rate, family, compound }): ResolvedComponent => {
    const relief = reliefOver(setup, tax.jurisdictionId, reliefIn);
    const none = relief !== null;
    return {
      taxId: tax.id,
      taxName: tax.name,
      jurisdictionId: tax.jurisdictionId,
      jurisdictionName: setup.jurisdiction.get(tax.jurisdictionId)?.name ?? tax.jurisdictionId,
      family,
      compound,
      percent: none ? decimal('0') : rate.percent,
      perUnit: none ? '' : rate.perUnit,
      insteadOf: none && rate.percent !== '' ? rate.percent : '',
      since: rate.from,
      source: rate.source,
      relief,
    };
  });
}

/** Relief in a jurisdiction covers the territories that lie in it. */
function reliefOver(setup: TaxSetup, jurisdictionId: string, reliefIn: ReliefIn): Relief | null {
  for (const { id } of lineage(setup.jurisdiction, jurisdictionId)) {
    const relief = reliefIn(id);
    if (relief !== null) return relief;
  }
  return null;
}

function reliefWords(components: readonly ResolvedComponent[]): string {
  const said = components.flatMap(({ relief, jurisdictionName }) =>
    relief === null
      ? []
      : [
          relief.certificate === ''
            ? `Not liable in ${jurisdictionName}: ${relief.reason}.`
            : `Exempt in ${jurisdictionName}, certificate ${relief.certificate}: ${relief.reason}.`,
        ],
  );
  return [...new Set(said)].join(' ');
}

function assemble(
  key: Pick<ResolvedTax, 'code' | 'name' | 'category' | 'exemptionCode' | 'boxBase' | 'boxTax'>,
  legend: string,
  components: readonly ResolvedComponent[],
  day: IsoDate,
): ResolvedTax {
  const whole = components.length > 0 && components.every((component) => component.relief !== null);
  const since = components.map((c) => c.since).reduce((a, b) => (a > b ? a : b), components[0]?.since ?? day);
  return {
    ...key,
    category: whole ? 'E' : key.category,
    percent: effectivePercent(components),
    since,
    legend: [legend, reliefWords(components)].filter(Boolean).join(' '),
    components,
  };
}

const isZero = (percent: Decimal | ''): boolean => percent !== '' && ratioOf(percent).n === 0n;

/** A code's name with its rate in the place of `{rate}`: `Standard {rate}` is Standard 23. */
export function nameWithRate(name: string, percent: Decimal): string {
  return name.replace('{rate}', percent);
}

function codeParts(setup: TaxSetup, code: TaxCode, day: IsoDate): readonly Part[] | Unresolved {
  const parts: Part[] = [];
  for (const component of code.components) {
    const part = partOf(setup, component, day);
    if ('problem' in part) return part;
    parts.push(part);
  }
  return parts;
}

function partOf(setup: TaxSetup, component: CodeComponent, day: IsoDate): Part | Unresolved {
  const tax = setup.tax.get(component.taxId);
  if (tax === undefined)
    return { problem: `The tax ${component.taxId} is not in Setup any more: choose another code.` };
  const rate = rateOn(tax, component.taxClass, day);
  if (rate === null)
    return {
      problem: `${tax.name} has no ${component.taxClass || 'general'} rate on ${day}: choose another code, or give it a rate in Setup.`,
    };
  return { tax, rate, family: component.family || tax.id, compound: component.compound };
}

/** A tax that asks for a registration of its own is charged where we have it. */
function isCharged(setup: TaxSetup, tax: Tax, day: IsoDate): boolean {
  const { ownRegistration = false, jurisdictionId } = tax;
  return (
    !ownRegistration ||
    activeOn(setup, day).some((one) => one.jurisdictionId === jurisdictionId || one.alsoIn?.includes(jurisdictionId))
  );
}

/** The taxes of a place for a class on a day, in the order of its stack. Taxes without a rate for the class are left out. */
export function stackParts(setup: TaxSetup, place: Place, taxClass: string, day: IsoDate): readonly Part[] {
  return place.stack.flatMap((jurisdictionId) =>
    (setup.taxesOf.get(jurisdictionId) ?? []).flatMap((tax) => {
      const rate = isCharged(setup, tax, day) ? rateOn(tax, taxClass, day) : null;
      const family = place.rounding === 'together' ? place.id : tax.id;
      return rate === null ? [] : [{ tax, rate, family, compound: false }];
    }),
  );
}

/** What a line carries before its relief: the taxes of its code or stack, and what it says of itself. */
interface Carried {
  readonly head: Pick<ResolvedTax, 'code' | 'name' | 'category' | 'exemptionCode' | 'boxBase' | 'boxTax'>;
  readonly legend: string;
  readonly components: readonly ResolvedComponent[];
  /** The name with the percent that its taxes come to; nothing but the name where it charges none. */
  readonly nameAt: (percent: Decimal) => string;
}

function carriedByCode(setup: TaxSetup, key: string, day: IsoDate, reliefIn: ReliefIn, language: string) {
  const code = setup.code.get(key);
  if (code === undefined) return { problem: `The tax code ${key} is not in Setup any more: choose another.` };
  const parts = codeParts(setup, code, day);
  if ('problem' in parts) return parts;
  const { name, category, exemptionCode, boxBase, boxTax } = code;
  return {
    head: { code: key, name, category, exemptionCode, boxBase, boxTax },
    legend: legendIn(code.legends, language),
    components: componentsOf(setup, parts, reliefIn),
    nameAt: (percent: Decimal) => nameWithRate(name, percent),
  };
}

/** A stack where no tax has a rate for the class is exempt and says so. */
function carriedByStack(
  setup: TaxSetup,
  { placeId, taxClass }: { readonly placeId: string; readonly taxClass: string },
  day: IsoDate,
  reliefIn: ReliefIn,
): Carried | Unresolved {
  const place = setup.placeIndex.byId.get(placeId);
  if (place === undefined)
    return { problem: `The place ${placeId} is not in Setup any more: choose the tax yourself.` };
  const components = componentsOf(setup, stackParts(setup, place, taxClass, day), reliefIn);
  const none = components.length === 0;
  // Nothing charged by a rate of 0 is zero rated, or exempt where the class says so.
  const zero = components.every(({ percent, insteadOf, perUnit }) => isZero(insteadOf || percent) && perUnit === '');
  const exempt = none || (zero && taxClass === EXEMPT_CLASS);
  const category: Category = exempt ? 'E' : zero ? 'Z' : 'S';
  return {
    head: { code: '', name: place.name, category, exemptionCode: '', boxBase: '', boxTax: '' },
    legend: exempt ? `${place.name} has no tax on supplies of the class ${taxClass}.` : '',
    components,
    nameAt: (percent) => (none ? place.name : `${place.name}, ${percent} %`),
  };
}

/** Without the taxes that a line leaves out, and with those that it adds. */
function changedOn(
  setup: TaxSetup,
  carried: Carried,
  { without, added }: TaxKey,
  day: IsoDate,
  reliefIn: ReliefIn,
): Carried | Unresolved {
  const parts: Part[] = [];
  for (const { taxId, taxClass } of added) {
    const part = partOf(setup, { taxId, taxClass, family: '', compound: false }, day);
    if ('problem' in part) return part;
    parts.push(part);
  }
  const kept = carried.components.filter(({ taxId }) => !without.includes(taxId));
  const components = [...kept, ...componentsOf(setup, parts, reliefIn)];
  if (components.length === 0)
    return { problem: 'No tax is left on this line: choose a code that charges nothing instead.' };
  const nameOf = (id: string) => setup.tax.get(id)?.name ?? id;
  const words = [
    ...without.map((id) => `without ${nameOf(id)}`),
    ...added.map(({ taxId }) => `with ${nameOf(taxId)}`),
  ].join(', ');
  // A code that charged nothing charges now.
  const category = parts.length > 0 && carried.components.length === 0 ? 'S' : carried.head.category;
  return {
    ...carried,
    head: { ...carried.head, category },
    components,
    nameAt: (percent) => [carried.nameAt(percent), words].filter(Boolean).join(' '),
  };
}

/**
 * A line's tax on a day, with the rates in force then and the customer's relief.
 * @param key see `taxKey.ts`; where it names a day of its own, the rates are those of that day.
 */
export function resolveTax(
  setup: TaxSetup,
  key: string,
  taxPoint: IsoDate,
  reliefIn: ReliefIn,
  language: string,
): ResolvedTax | Unresolved {
  const read = readTaxKey(key);
  const day = read.ratesOf || taxPoint;
  const stack = readStackKey(key);
  const plain =
    stack === null
      ? carriedByCode(setup, read.base, day, reliefIn, language)
      : carriedByStack(setup, stack, day, reliefIn);
  if ('problem' in plain) return plain;
  const carried = isChangedKey(key) ? changedOn(setup, plain, read, day, reliefIn) : plain;
  if ('problem' in carried) return carried;
  const resolved = assemble({ ...carried.head, code: key }, carried.legend, carried.components, day);
  return { ...resolved, name: carried.nameAt(resolved.percent) };
}
