import type { IsoDate } from '@/core/kernel/date';
import { accept, type Result, refuse } from '@/core/kernel/result';
import { validated } from '@/core/kernel/validate';
import { type DecisionRow, decisionRowSchema } from '../decisionTable';
import { type Jurisdiction, jurisdictionSchema } from '../jurisdiction';
import { type Place, placeSchema } from '../place';
import type { Frequency } from '../registration';
import { sortedRates, type Tax, type TaxRate, taxSchema } from '../tax';
import { type TaxCode, taxCodeSchema } from '../taxCode';
import { type WithholdingType, withholdingTypeSchema } from '../withholding';

/** What a registration under the pack usually looks like; offered when one is made. */
export interface UsualRegistration {
  readonly country: string;
  readonly jurisdictionId: string;
  readonly name: string;
  readonly authority: string;
  readonly frequency: Frequency;
  readonly filingCurrency: string;
  readonly level: 'document' | 'line';
  readonly cashStep: string;
  readonly wholeUnits: boolean;
}

/** A starter pack: the tax set-up of one country or state, to be checked before use. */
export interface Pack {
  readonly id: string;
  readonly title: string;
  /** Day of its knowledge: what changed later is not in it. */
  readonly knownAt: IsoDate;
  readonly registration: UsualRegistration | null;
  readonly jurisdictions: readonly Jurisdiction[];
  readonly taxes: readonly Tax[];
  readonly codes: readonly TaxCode[];
  readonly places: readonly Place[];
  readonly rows: readonly DecisionRow[];
  readonly withholdingTypes: readonly WithholdingType[];
}

type Short<T> = Partial<T> & { readonly id: string };

/** A pack as its file writes it: rates as `[class, from, percent, source, last day]`, empty parts left out. */
export interface PackFile {
  readonly id: string;
  readonly title: string;
  readonly knownAt: string;
  readonly registration: UsualRegistration | null;
  readonly jurisdictions: readonly unknown[];
  readonly taxes: readonly (Short<Omit<Tax, 'rates'>> & { readonly rates: readonly (readonly string[])[] })[];
  readonly codes: readonly (Short<Omit<TaxCode, 'components' | 'legends'>> & {
    readonly components: readonly { readonly taxId: string; readonly taxClass: string }[];
    readonly legends: Readonly<Record<string, string>>;
  })[];
  readonly places: readonly (Short<Omit<Place, 'matches'>> & { readonly matches: readonly object[] })[];
  readonly rows: readonly Short<DecisionRow>[];
  readonly withholdingTypes: readonly (Short<Omit<WithholdingType, 'rates'>> & {
    readonly rates: readonly (readonly string[])[];
  })[];
}

const rateOf = ([taxClass = '', from = '', percent = '', source = '', until = '']: readonly string[]) =>
  ({ taxClass, from, until, percent, perUnit: '', source }) as TaxRate;

const NO_CONDITIONS = {
  supply: [],
  taxClass: [],
  customer: [],
  number: [],
  shipFrom: [],
  shipTo: [],
  from: '',
  until: '',
};

/** Reads a pack's file. Refused with every record that is not what it should be. */
export function readPack(file: PackFile): Result<Pack> {
  const pack = {
    ...file,
    taxes: file.taxes.map((tax) => ({ ...tax, rates: sortedRates(tax.rates.map(rateOf)) })),
    codes: file.codes.map((code) => ({
      ...code,
      components: code.components.map((component) => ({ family: '', compound: false, ...component })),
      legends: Object.entries(code.legends).map(([language, text]) => ({ language, text })),
    })),
    places: file.places.map((place) => ({
      ...place,
      matches: place.matches.map((match) => ({ region: '', postalFrom: '', postalTo: '', city: '', ...match })),
    })),
    rows: file.rows.map((row) => ({ ...NO_CONDITIONS, ...row })),
    withholdingTypes: file.withholdingTypes.map((type) => ({
      ...type,
      rates: type.rates.map(([from, percent]) => ({ from, percent })),
    })),
  } as unknown as Pack;
  const results = [
    ...pack.jurisdictions.map((j) => validated(jurisdictionSchema, j)),
    ...pack.taxes.map((tax) => validated(taxSchema, tax)),
    ...pack.codes.map((code) => validated(taxCodeSchema, code)),
    ...pack.places.map((place) => validated(placeSchema, place)),
    ...pack.rows.map((row) => validated(decisionRowSchema, row)),
    ...pack.withholdingTypes.map((type) => validated(withholdingTypeSchema, type)),
  ];
  const wrong = results.flatMap((result) => (result.ok ? [] : result.refusals));
  return wrong.length > 0 ? refuse(...wrong) : accept(pack);
}
