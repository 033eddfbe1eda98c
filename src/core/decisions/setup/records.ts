import type { Schema } from 'yup';
import type { Decision } from '@/core/book/changes';
import type { CustomerRow, ItemRow, PlaceRow } from '@/core/book/rows';
import { itemSchema } from '@/core/catalogue/item';
import { type PriceList, priceListSchema } from '@/core/catalogue/priceList';
import { type ExchangeRate, exchangeRateId, exchangeRateSchema } from '@/core/currency/exchangeRate';
import { type DocumentStyle, styleSchema } from '@/core/documents/style';
import type { IsoDate } from '@/core/kernel/date';
import { readRegion, regionsOf } from '@/core/kernel/region';
import { accept, type Refusal, refuse } from '@/core/kernel/result';
import { validated } from '@/core/kernel/validate';
import type { Wanted } from '@/core/kernel/wanted';
import { searchKeys } from '@/core/kernel/words';
import type { Address } from '@/core/parties/address';
import { type Certificate, certificateSchema } from '@/core/parties/certificate';
import { customerSchema } from '@/core/parties/customer';
import { closesCircle, type Jurisdiction, jurisdictionSchema } from '@/core/tax/jurisdiction';
import { placeKeys, placeSchema } from '@/core/tax/place';
import { sortedRates, type Tax, taxSchema } from '@/core/tax/tax';
import { type TaxCode, taxCodeSchema } from '@/core/tax/taxCode';
import type { TaxRecords } from '@/core/tax/taxSetup';
import { type WithholdingType, withholdingTypeSchema } from '@/core/tax/withholding';

/** Records of the tax set-up that are kept one by one, by their table. */
export interface SetupRecords {
  jurisdictions: Jurisdiction;
  taxes: Tax;
  taxCodes: TaxCode;
  places: PlaceRow;
  withholdingTypes: WithholdingType;
  certificates: Certificate;
  priceLists: PriceList;
  exchangeRates: ExchangeRate;
  styles: DocumentStyle;
  customers: CustomerRow;
  items: ItemRow;
}

export type SetupTable = keyof SetupRecords;

/** What keeping a record looks at beside the record itself. */
export interface RecordMaterial<T> {
  readonly before: T | undefined;
  readonly isNew: boolean;
  readonly records: TaxRecords;
  /** Newest tax point of a tax entry that rests on the tax; null while there is none. */
  readonly usedUntil: IsoDate | null;
  /** Codes of the chart of accounts; only items name accounts. */
  readonly accounts?: ReadonlySet<string>;
}

interface RecordKind<T> {
  readonly schema: Schema;
  readonly nameOf: (value: T) => string;
  /** The value as it is kept. */
  readonly kept?: (value: T) => T;
  /** What is wrong with it among the others. */
  readonly faults?: (value: T, material: RecordMaterial<T>) => readonly Refusal[];
}

const unknown = (path: string, wanted: Wanted): Refusal => ({ code: 'unknown', path, wanted });

/** Rates that documents rest on can be ended, but neither changed nor taken out. */
function begunRates(tax: Tax, { before, usedUntil }: RecordMaterial<Tax>): readonly Refusal[] {
  if (before === undefined || usedUntil === null) return [];
  return before.rates.flatMap((old): readonly Refusal[] => {
    if (old.from > usedUntil) return [];
    const at = tax.rates.findIndex((rate) => rate.taxClass === old.taxClass && rate.from === old.from);
    const now = tax.rates[at];
    if (now !== undefined && now.percent === old.percent && now.perUnit === old.perUnit) return [];
    const figure = old.percent === '' ? old.perUnit : `${old.percent} %`;
    return [{ code: 'begun', path: at < 0 ? 'rates' : `rates[${at}].percent`, rate: figure, from: old.from }];
  });
}

/** A region that its country does not have would silently be taxed as another one. */
function regionFaults({ country, region }: Address, path: string): readonly Refusal[] {
  if (readRegion(country, region) !== null) return [];
  const [code, name] = regionsOf(country)[0] ?? ['', ''];
  return [
    { code: 'unknown', path: `${path}.region`, wanted: { what: 'region-of-country', name, code }, found: region },
  ];
}

const KINDS: { readonly [T in SetupTable]: RecordKind<SetupRecords[T]> } = {
  jurisdictions: {
    schema: jurisdictionSchema,
    nameOf: (j) => j.name,
    faults: (j, { records }) => {
      const known = new Map(records.jurisdictions.map((other) => [other.id, other]));
      if (j.parentId === '') return [];
      if (!known.has(j.parentId)) return [unknown('parentId', 'choose-territory-above')];
      return closesCircle(known, j.id, j.parentId) ? [{ code: 'circle', path: 'parentId' }] : [];
    },
  },
  taxes: {
    schema: taxSchema,
    nameOf: (tax) => tax.name,
    kept: (tax) => ({ ...tax, rates: sortedRates(tax.rates) }),
    faults: (tax, material) => [
      ...(material.records.jurisdictions.some((j) => j.id === tax.jurisdictionId)
        ? []
        : [unknown('jurisdictionId', 'choose-jurisdiction')]),
      ...begunRates(tax, material),
    ],
  },
  taxCodes: {
    schema: taxCodeSchema,
    nameOf: (code) => code.id,
    faults: (code, { records }) =>
      code.components.flatMap(({ taxId }, i) =>
        records.taxes.some((tax) => tax.id === taxId) ? [] : [unknown(`components[${i}].taxId`, 'choose-tax')],
      ),
  },
  places: {
    schema: placeSchema,
    nameOf: (place) => place.name,
    kept: (place) => ({ ...place, keys: placeKeys(place) }),
    faults: (place, { records }) =>
      place.stack.flatMap((id, i) =>
        records.jurisdictions.some((j) => j.id === id) ? [] : [unknown(`stack[${i}]`, 'choose-jurisdiction')],
      ),
  },
  withholdingTypes: { schema: withholdingTypeSchema, nameOf: (type) => type.name },
  certificates: {
    schema: certificateSchema,
    nameOf: (certificate) => `certificate ${certificate.number}`,
    faults: ({ jurisdictionId }, { records }) =>
      records.jurisdictions.some((j) => j.id === jurisdictionId)
        ? []
        : [unknown('jurisdictionId', 'choose-jurisdiction')],
  },
  priceLists: { schema: priceListSchema, nameOf: (list) => list.name },
  exchangeRates: {
    schema: exchangeRateSchema,
    nameOf: (rate) => `${rate.currency} ${rate.date}`,
    kept: (rate) => ({ ...rate, id: exchangeRateId(rate.currency, rate.date) }),
  },
  styles: { schema: styleSchema, nameOf: (style) => style.name },
  customers: {
    schema: customerSchema,
    nameOf: (customer) => customer.name,
    faults: ({ address }) => regionFaults(address, 'address'),
    kept: (customer) => {
      const { name, address, email, contacts, taxNumbers, mergedInto } = customer;
      const people = contacts.flatMap((contact) => [contact.name, contact.email]);
      const words = [name, address.city, email, ...people, ...taxNumbers.map((n) => n.number)];
      return { ...customer, keys: mergedInto === '' ? searchKeys(words) : [] };
    },
  },
  items: {
    schema: itemSchema,
    nameOf: (item) => item.name,
    faults: ({ account }, { accounts }) =>
      accounts?.has(account)
        ? []
        : [{ code: 'unknown', path: 'account', wanted: 'choose-account-such-as-4000', found: account }],
    kept: (item) => ({ ...item, keys: searchKeys([item.name, item.description]) }),
  },
};

/** Checks a record and how it fits the others. */
export function recordRefusals<T extends SetupTable>(
  table: T,
  value: SetupRecords[T],
  material: RecordMaterial<SetupRecords[T]>,
): readonly Refusal[] {
  const kind = KINDS[table];
  const checked = validated<SetupRecords[T]>(kind.schema, value);
  if (!checked.ok) return checked.refusals;
  if (material.isNew && material.before !== undefined) return [{ code: 'duplicate', path: 'id', found: value.id }];
  return kind.faults?.(value, material) ?? [];
}

/** The record as it is kept, in the order its table keeps. */
export function recordKept<T extends SetupTable>(table: T, value: SetupRecords[T]): SetupRecords[T] {
  return KINDS[table].kept?.(value) ?? value;
}

/** Keeps one record of the tax set-up. */
export function saveRecord<T extends SetupTable>(
  table: T,
  value: SetupRecords[T],
  material: RecordMaterial<SetupRecords[T]>,
): Decision<SetupRecords[T]> {
  const refusals = recordRefusals(table, value, material);
  if (refusals.length > 0) return refuse(...refusals);
  const saved = recordKept(table, value);
  const { before } = material;
  return accept({
    value: saved,
    changes: {
      put: { [table]: [saved] },
      audit: { subject: KINDS[table].nameOf(saved), about: [saved.id], ...(before && { before }), after: saved },
    },
  });
}
