import type { Tax, TaxRate } from '../tax';
import type { TaxRecords } from '../taxSetup';
import type { Pack } from './pack';

/** A tax of the book and one of a pack that would both charge what a territory's stack charges. */
export interface Overlap {
  readonly ours: Tax;
  readonly theirs: Tax;
}

/** Which of two taxes that overlap is to charge. */
export type Keep = 'ours' | 'theirs';

const meet = (a: TaxRate, b: TaxRate): boolean =>
  (a.taxClass === b.taxClass || a.taxClass === '' || b.taxClass === '') &&
  (a.until === '' || b.from <= a.until) &&
  (b.until === '' || a.from <= b.until);

/** True when two taxes of one territory charge one class at one time. */
export function chargeTogether(a: Tax, b: Tax): boolean {
  if (a.jurisdictionId !== b.jurisdictionId) return false;
  return a.rates.some((one) => b.rates.some((other) => meet(one, other)));
}

/** Taxes that the book made itself and a pack would charge beside. */
export function overlapsOf(pack: Pack, { taxes }: Pick<TaxRecords, 'taxes'>): readonly Overlap[] {
  const known = new Set(taxes.map(({ id }) => id));
  const theirs = new Set(pack.taxes.map(({ id }) => id));
  const fresh = pack.taxes.filter(({ id }) => !known.has(id));
  const own = taxes.filter(({ id }) => !theirs.has(id));
  return own.flatMap((ours) => fresh.filter((tax) => chargeTogether(ours, tax)).map((tax) => ({ ours, theirs: tax })));
}

type Charging = Pick<TaxRecords, 'taxes' | 'codes' | 'rows'>;

/** A set-up without some taxes, the codes that charge them, and the rows that end in such a code. */
export function withoutTaxes<T extends Charging>(records: T, ids: ReadonlySet<string>): T {
  const gone = new Set(
    records.codes.filter(({ components }) => components.some(({ taxId }) => ids.has(taxId))).map(({ id }) => id),
  );
  return {
    ...records,
    taxes: records.taxes.filter(({ id }) => !ids.has(id)),
    codes: records.codes.filter(({ id }) => !gone.has(id)),
    rows: records.rows.filter(({ result }) => result.kind !== 'code' || !gone.has(result.code)),
  };
}
