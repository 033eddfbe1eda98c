import type { IsoDate } from '@/core/kernel/date';
import type { DecisionRow } from './decisionTable';
import type { Jurisdiction } from './jurisdiction';
import { indexPlaces, type Place, type PlaceIndex } from './place';
import { isActive, type Registration } from './registration';
import type { Tax } from './tax';
import type { TaxCode } from './taxCode';
import type { WithholdingType } from './withholding';

/** The tax set-up of a book, as it is kept. */
export interface TaxRecords {
  readonly registrations: readonly Registration[];
  readonly jurisdictions: readonly Jurisdiction[];
  readonly taxes: readonly Tax[];
  readonly codes: readonly TaxCode[];
  readonly places: readonly Place[];
  /** The decision table, first row first. */
  readonly rows: readonly DecisionRow[];
  readonly withholdingTypes: readonly WithholdingType[];
}

/** A set-up that holds nothing. */
export const NO_RECORDS: TaxRecords = {
  registrations: [],
  jurisdictions: [],
  taxes: [],
  codes: [],
  places: [],
  rows: [],
  withholdingTypes: [],
};

/** The same, prepared for deciding many lines. */
export interface TaxSetup extends TaxRecords {
  readonly jurisdiction: ReadonlyMap<string, Jurisdiction>;
  readonly tax: ReadonlyMap<string, Tax>;
  readonly taxesOf: ReadonlyMap<string, readonly Tax[]>;
  readonly code: ReadonlyMap<string, TaxCode>;
  readonly placeIndex: PlaceIndex;
}

/** Prepares a set-up once. */
export function prepareSetup(records: TaxRecords): TaxSetup {
  const taxesOf = new Map<string, Tax[]>();
  for (const tax of records.taxes) taxesOf.set(tax.jurisdictionId, [...(taxesOf.get(tax.jurisdictionId) ?? []), tax]);
  return {
    ...records,
    jurisdiction: new Map(records.jurisdictions.map((j) => [j.id, j])),
    tax: new Map(records.taxes.map((tax) => [tax.id, tax])),
    taxesOf,
    code: new Map(records.codes.map((code) => [code.id, code])),
    placeIndex: indexPlaces(records.places),
  };
}

/** Registrations in force on a day, in the order of the book. */
export function activeOn(setup: Pick<TaxRecords, 'registrations'>, day: IsoDate): readonly Registration[] {
  return setup.registrations.filter((registration) => isActive(registration, day));
}

/** Every tax class that rates, codes or rows speak of, in alphabetical order. */
export function knownClasses(records: Pick<TaxRecords, 'taxes' | 'codes' | 'rows'>): readonly string[] {
  const all = [
    ...records.taxes.flatMap((tax) => tax.rates.map((rate) => rate.taxClass)),
    ...records.codes.flatMap((code) => code.components.map((component) => component.taxClass)),
    ...records.rows.flatMap((row) => row.taxClass),
  ];
  return [...new Set(['standard', ...all])].filter(Boolean).sort();
}

/**
 * Codes of the territory of a registration: those that charge its taxes alone, and those that charge
 * nothing and that a row of the decision table gives for it.
 */
export function codesUnder(
  registration: Pick<Registration, 'jurisdictionId'>,
  { codes, taxes, rows }: Pick<TaxRecords, 'codes' | 'taxes' | 'rows'>,
): readonly TaxCode[] {
  const { jurisdictionId } = registration;
  const own = new Set(taxes.filter((tax) => tax.jurisdictionId === jurisdictionId).map((tax) => tax.id));
  const given = new Set(
    rows.flatMap(({ registeredIn, result }) =>
      result.kind === 'code' && (registeredIn.length === 0 || registeredIn.includes(jurisdictionId))
        ? [result.code]
        : [],
    ),
  );
  return codes.filter(({ id, components }) =>
    components.length === 0 ? given.has(id) : components.every(({ taxId }) => own.has(taxId)),
  );
}
