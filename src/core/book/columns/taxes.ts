import { sortedRates, type Tax, type TaxRate } from '@/core/tax/tax';
import { byId, type Columns, type CsvRow, cell, last } from './columns';

const rateOf = (row: CsvRow): TaxRate =>
  ({
    taxClass: cell(row, 'class'),
    from: cell(row, 'from'),
    until: cell(row, 'until'),
    percent: cell(row, 'percent'),
    perUnit: cell(row, 'per unit'),
    source: cell(row, 'source'),
  }) as TaxRate;

function withRates(tax: Tax, rates: readonly TaxRate[]): Tax {
  const same = (a: TaxRate, b: TaxRate) => a.taxClass === b.taxClass && a.from === b.from;
  return { ...tax, rates: sortedRates([...tax.rates.filter((old) => !rates.some((r) => same(r, old))), ...rates]) };
}

/** Rates are added to what the book has. */
export const TAX_COLUMNS: Columns<Tax> = {
  title: 'Taxes and rates',
  agreed: ['jurisdiction', 'name'],
  heads: ['tax', 'jurisdiction', 'name', 'class', 'from', 'until', 'percent', 'per unit', 'source'],
  write: (tax) =>
    tax.rates.map((r) => [
      tax.id,
      tax.jurisdictionId,
      tax.name,
      r.taxClass,
      r.from,
      r.until,
      r.percent,
      r.perUnit,
      r.source,
    ]),
  read: (rows, known) =>
    byId(rows, 'tax').map(([id, own]) => {
      const [first] = own;
      const fresh: Tax = {
        id,
        jurisdictionId: first === undefined ? '' : cell(first, 'jurisdiction'),
        name: first === undefined ? '' : cell(first, 'name'),
        rates: [],
      };
      const before = known(id);
      const { ownRegistration } = before ?? {};
      const tax = { ...fresh, rates: before?.rates ?? [], ...(ownRegistration && { ownRegistration }) };
      return { rows: own.map((row) => row.row), value: withRates(tax, own.map(rateOf)) };
    }),
  columnOf: (path) =>
    ({ id: 'tax', jurisdictionId: 'jurisdiction', taxClass: 'class', perUnit: 'per unit' })[last(path)] ?? last(path),
};
