import { isIsoDate, writeDate } from '@/core/kernel/date';
import type { DecisionRow, Relation } from '@/core/tax/decisionTable';
import { plainName } from '@/core/tax/taxCode';
import type { TaxRecords } from '@/core/tax/taxSetup';

export const RELATION_WORDS: Readonly<Record<Relation, string>> = {
  territory: 'inside the territory',
  country: 'elsewhere in the country',
  union: 'in the customs union',
  outside: 'outside',
};

export const NUMBER_WORDS = {
  verified: 'number verified',
  unverified: 'number not verified',
  none: 'no number',
} as const;

/** The conditions of a row as one sentence; what is not asked is not said. */
export function conditionWords(row: DecisionRow, records: Pick<TaxRecords, 'jurisdictions'>): string {
  const nameOf = (id: string) => records.jurisdictions.find((j) => j.id === id)?.name ?? id;
  const many = (values: readonly string[]) =>
    values.length > 4 ? `${values.length} territories` : values.join(' or ');
  const parts = [
    row.registeredIn.length > 0 && `registered in ${many(row.registeredIn.map(nameOf))}`,
    row.supply.length > 0 && row.supply.join(' or '),
    row.taxClass.length > 0 && `class ${row.taxClass.join(' or ')}`,
    row.customer.length > 0 && `to a ${row.customer.join(' or ')}`,
    row.number.length > 0 && row.number.map((n) => NUMBER_WORDS[n]).join(' or '),
    row.shipFrom.length > 0 && `from ${row.shipFrom.map((r) => RELATION_WORDS[r]).join(' or ')}`,
    row.shipTo.length > 0 && `to ${row.shipTo.map((r) => RELATION_WORDS[r]).join(' or ')}`,
    isIsoDate(row.from) && `from ${writeDate(row.from)}`,
    isIsoDate(row.until) && `until ${writeDate(row.until)}`,
  ].filter(Boolean);
  return parts.length === 0 ? 'always' : parts.join(', ');
}

/** What a row decides, in words. */
export function resultWords(row: DecisionRow, records: Pick<TaxRecords, 'codes'>): string {
  const { result } = row;
  if (result.kind === 'stack') return 'the stack of the destination';
  if (result.kind === 'refuse') return `asks: ${result.message}`;
  const code = records.codes.find((c) => c.id === result.code);
  return code === undefined ? result.code : `${result.code} ${plainName(code)}`;
}
