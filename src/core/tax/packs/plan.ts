import type { DecisionRow } from '../decisionTable';
import type { Place } from '../place';
import { sortedRates, type Tax, type TaxRate } from '../tax';
import { NO_RECORDS, type TaxRecords } from '../taxSetup';
import type { Pack } from './pack';

/** What adding a pack would change: only what is not there yet. */
export interface PackPlan {
  readonly jurisdictions: Pack['jurisdictions'];
  /** New taxes, and taxes of the book with the rates they lack. */
  readonly taxes: readonly Tax[];
  readonly newRates: readonly { readonly tax: Tax; readonly rate: TaxRate }[];
  readonly codes: Pack['codes'];
  readonly places: Pack['places'];
  readonly newRows: readonly DecisionRow[];
  /** The whole decision table with the new rows in place. */
  readonly rows: readonly DecisionRow[];
  readonly withholdingTypes: Pack['withholdingTypes'];
  /** Records of the pack that the book has already and keeps as they are. */
  readonly kept: readonly string[];
}

function missing<T extends { readonly id: string }>(wanted: readonly T[], have: readonly { readonly id: string }[]) {
  const known = new Set(have.map((record) => record.id));
  return wanted.filter((record) => !known.has(record.id));
}

const sameRate = (a: TaxRate, b: TaxRate): boolean => a.taxClass === b.taxClass && a.from === b.from;

const onlyInside = (row: DecisionRow): boolean => row.shipTo.length === 1 && row.shipTo[0] === 'territory';

/**
 * Rows for what stays inside a territory go before rows for what leaves one: what is delivered in
 * Washington must not be caught by the Irish row for exports.
 */
function insertRows(table: readonly DecisionRow[], rows: readonly DecisionRow[]): readonly DecisionRow[] {
  const at = table.findIndex((row) => !onlyInside(row));
  const before = at < 0 ? table.length : at;
  const inside = rows.filter(onlyInside);
  const others = rows.filter((row) => !onlyInside(row));
  return [...table.slice(0, before), ...inside, ...table.slice(before), ...others];
}

/** Plans adding a pack to a set-up. Nothing of the user's is overwritten; taxes gain rates they lack. */
export function planPack(pack: Pack, records: TaxRecords, placeIds: readonly string[]): PackPlan {
  const have = new Map(records.taxes.map((tax) => [tax.id, tax]));
  const newRates = pack.taxes.flatMap((tax) => {
    const own = have.get(tax.id)?.rates ?? [];
    return tax.rates.filter((rate) => !own.some((r) => sameRate(r, rate))).map((rate) => ({ tax, rate }));
  });
  const changed = new Set(newRates.map(({ tax }) => tax.id));
  const taxes = pack.taxes
    .filter((tax) => changed.has(tax.id) || !have.has(tax.id))
    .map((tax): Tax => {
      const own = have.get(tax.id);
      const added = newRates.filter((n) => n.tax.id === tax.id).map((n) => n.rate);
      return own === undefined ? tax : { ...own, rates: sortedRates([...own.rates, ...added]) };
    });
  const jurisdictions = missing(pack.jurisdictions, records.jurisdictions);
  const codes = missing(pack.codes, records.codes);
  const places = missing(
    pack.places,
    placeIds.map((id) => ({ id })),
  );
  const newRows = missing(pack.rows, records.rows);
  const withholdingTypes = missing(pack.withholdingTypes, records.withholdingTypes);
  const added = new Set(
    [jurisdictions, taxes, codes, places, newRows, withholdingTypes].flatMap((list) => list.map((r) => r.id)),
  );
  const all = [pack.jurisdictions, pack.taxes, pack.codes, pack.places, pack.rows, pack.withholdingTypes];
  return {
    jurisdictions,
    taxes,
    newRates,
    codes,
    places,
    newRows,
    rows: insertRows(records.rows, newRows),
    withholdingTypes,
    kept: [...new Set(all.flatMap((list) => list.map((r) => r.id)))].filter((id) => !added.has(id)),
  };
}

/** How many records a plan adds. */
export function planSize(plan: PackPlan): number {
  const { jurisdictions, newRates, codes, places, newRows, withholdingTypes } = plan;
  return [jurisdictions, newRates, codes, places, newRows, withholdingTypes].reduce((sum, l) => sum + l.length, 0);
}

/** Everything that some packs bring into an empty book, in their order. */
export function recordsOfPacks(packs: readonly Pack[]): TaxRecords & { readonly places: readonly Place[] } {
  let records: TaxRecords = NO_RECORDS;
  let places: readonly Place[] = [];
  for (const pack of packs) {
    const plan = planPack(
      pack,
      records,
      places.map(({ id }) => id),
    );
    places = [...places, ...plan.places];
    records = {
      ...records,
      jurisdictions: [...records.jurisdictions, ...plan.jurisdictions],
      taxes: [...records.taxes.filter(({ id }) => !plan.taxes.some((tax) => tax.id === id)), ...plan.taxes],
      codes: [...records.codes, ...plan.codes],
      rows: plan.rows,
      withholdingTypes: [...records.withholdingTypes, ...plan.withholdingTypes],
    };
  }
  return { ...records, places };
}
