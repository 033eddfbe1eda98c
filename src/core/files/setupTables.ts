import type { Item } from '@/core/catalogue/item';
import { type ExchangeRate, exchangeRateId } from '@/core/currency/exchangeRate';
import type { SetupRecords } from '@/core/decisions/setup/records';
import { grouped } from '@/core/kernel/grouped';
import type { Certificate } from '@/core/parties/certificate';
import { blankCustomer, type Customer, mainNumber } from '@/core/parties/customer';
import type { Jurisdiction } from '@/core/tax/jurisdiction';
import { type Place, placeKeys } from '@/core/tax/place';
import { sortedRates, type Tax, type TaxRate } from '@/core/tax/tax';
import type { CsvRow } from './csv';

/** Tables of the set-up that go out to CSV and come in from it. */
export type CsvRecords = Pick<
  SetupRecords,
  'jurisdictions' | 'taxes' | 'places' | 'certificates' | 'customers' | 'items' | 'exchangeRates'
>;

export type CsvTable = keyof CsvRecords;

/** A record read from a file, with the rows it came from. */
export interface ReadRecord<T> {
  readonly value: T;
  readonly rows: readonly number[];
}

interface CsvShape<T> {
  readonly title: string;
  readonly heads: readonly string[];
  readonly write: (record: T) => readonly (readonly string[])[];
  /** `known` finds the record of the book that a row speaks of. */
  readonly read: (rows: readonly CsvRow[], known: (id: string) => T | undefined) => readonly ReadRecord<T>[];
  /** An id may be left out: it is made from the name. */
  readonly idFromName?: true;
  /** Heads that all rows of one record have to agree in, where it may have several. */
  readonly agreed?: readonly string[];
  /** Column that a path of a refused record stands in. */
  readonly columnOf: (path: string) => string;
}

const ARROW = ' > ';

const cell = (row: CsvRow, head: string): string => row.cells[head] ?? '';

/** `rates[0].percent` → `percent`. */
const last = (path: string): string => path.replace(/^.*\./, '').replace(/\[\d+\]$/, '');

const byId = (rows: readonly CsvRow[], head: string) => [...grouped(rows, (row) => cell(row, head))];

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

/** The customer's numbers with this one first; a number that is known keeps what the registry said of it. */
function withMainNumber(before: Customer, number: string, country: string): Customer['taxNumbers'] {
  const known = before.taxNumbers.find((one) => one.number === number);
  const others = before.taxNumbers.filter((one) => one.number !== number);
  if (number === '') return before.taxNumbers;
  return [known ?? { country, number, check: null }, ...(known === undefined ? others.slice(1) : others)];
}

/** How each table is written and read. Rates are added to what the book has; other records are replaced. */
export const CSV_SHAPES: { readonly [T in CsvTable]: CsvShape<CsvRecords[T]> } = {
  jurisdictions: {
    title: 'Jurisdictions',
    heads: ['code', 'name', 'kind', 'iso', 'lies in'],
    write: (j) => [[j.id, j.name, j.kind, j.code, j.parentId]],
    read: (rows) =>
      rows.map((row) => ({
        rows: [row.row],
        value: {
          id: cell(row, 'code'),
          name: cell(row, 'name'),
          kind: cell(row, 'kind') as Jurisdiction['kind'],
          code: cell(row, 'iso'),
          parentId: cell(row, 'lies in'),
        },
      })),
    columnOf: (path) => ({ id: 'code', code: 'iso', parentId: 'lies in' })[path] ?? path,
  },
  taxes: {
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
        const tax = { ...fresh, rates: known(id)?.rates ?? [] };
        return { rows: own.map((row) => row.row), value: withRates(tax, own.map(rateOf)) };
      }),
    columnOf: (path) =>
      ({ id: 'tax', jurisdictionId: 'jurisdiction', taxClass: 'class', perUnit: 'per unit' })[last(path)] ?? last(path),
  },
  places: {
    title: 'Places',
    agreed: ['name', 'rounding', 'stack'],
    heads: ['place', 'name', 'rounding', 'stack', 'country', 'region', 'postal from', 'postal to', 'city'],
    write: (place) =>
      place.matches.map((m) => [
        place.id,
        place.name,
        place.rounding,
        place.stack.join(ARROW),
        m.country,
        m.region,
        m.postalFrom,
        m.postalTo,
        m.city,
      ]),
    read: (rows) =>
      byId(rows, 'place').map(([id, own]) => {
        const [first] = own;
        const place: Place = {
          id,
          name: first === undefined ? '' : cell(first, 'name'),
          rounding: (first === undefined ? '' : cell(first, 'rounding')) as Place['rounding'],
          stack:
            first === undefined
              ? []
              : cell(first, 'stack')
                  .split('>')
                  .map((part) => part.trim())
                  .filter(Boolean),
          matches: own.map((row) => ({
            country: cell(row, 'country'),
            region: cell(row, 'region'),
            postalFrom: cell(row, 'postal from'),
            postalTo: cell(row, 'postal to'),
            city: cell(row, 'city'),
          })),
        };
        return { rows: own.map((row) => row.row), value: { ...place, keys: placeKeys(place) } };
      }),
    columnOf: (path) => ({ id: 'place', postalFrom: 'postal from', postalTo: 'postal to' })[last(path)] ?? last(path),
  },
  certificates: {
    title: 'Exemption certificates',
    heads: ['id', 'customer', 'jurisdiction', 'number', 'reason', 'from', 'until'],
    write: (c) => [[c.id, c.customerId, c.jurisdictionId, c.number, c.reason, c.from, c.until]],
    read: (rows, known) =>
      rows.map((row) => {
        const id = cell(row, 'id');
        return {
          rows: [row.row],
          value: {
            id,
            customerId: cell(row, 'customer'),
            jurisdictionId: cell(row, 'jurisdiction'),
            number: cell(row, 'number'),
            reason: cell(row, 'reason'),
            from: cell(row, 'from') as Certificate['from'],
            until: cell(row, 'until') as Certificate['until'],
            file: known(id)?.file ?? null,
          },
        };
      }),
    columnOf: (path) => ({ customerId: 'customer', jurisdictionId: 'jurisdiction' })[path] ?? path,
  },
  customers: {
    title: 'Customers',
    idFromName: true,
    heads: [
      'id',
      'name',
      'kind',
      'street',
      'postal code',
      'city',
      'region',
      'country',
      'email',
      'language',
      'tax number',
      'terms',
      'currency',
    ],
    write: (c) => [
      [
        c.id,
        c.name,
        c.kind,
        c.address.street,
        c.address.postalCode,
        c.address.city,
        c.address.region,
        c.address.country,
        c.email,
        c.language,
        mainNumber(c),
        c.terms,
        c.currency,
      ],
    ],
    read: (rows, known) =>
      rows.map((row) => {
        const [id, name] = [cell(row, 'id'), cell(row, 'name')];
        const before = known(id) ?? { ...blankCustomer(id, name, cell(row, 'country')), keys: [] };
        return {
          rows: [row.row],
          value: {
            ...before,
            name,
            kind: (cell(row, 'kind') || before.kind) as Customer['kind'],
            address: {
              street: cell(row, 'street'),
              postalCode: cell(row, 'postal code'),
              city: cell(row, 'city'),
              region: cell(row, 'region'),
              country: cell(row, 'country').toUpperCase(),
            },
            email: cell(row, 'email'),
            language: cell(row, 'language') || before.language,
            taxNumbers: withMainNumber(before, cell(row, 'tax number'), cell(row, 'country').toUpperCase()),
            terms: cell(row, 'terms') || before.terms,
            currency: cell(row, 'currency').toUpperCase(),
          },
        };
      }),
    columnOf: (path) => ({ postalCode: 'postal code', number: 'tax number' })[last(path)] ?? last(path),
  },
  items: {
    title: 'Items',
    idFromName: true,
    heads: ['id', 'name', 'description', 'unit', 'price', 'price holds', 'account', 'class', 'supply'],
    write: (i) => [[i.id, i.name, i.description, i.unit, i.price, i.priceMode, i.account, i.taxClass, i.supply]],
    read: (rows, known) =>
      rows.map((row) => {
        const [id, name] = [cell(row, 'id'), cell(row, 'name')];
        const before = known(id);
        return {
          rows: [row.row],
          value: {
            id,
            name,
            description: cell(row, 'description'),
            unit: cell(row, 'unit') || before?.unit || 'C62',
            price: cell(row, 'price') as Item['price'],
            priceMode: (cell(row, 'price holds') || before?.priceMode || 'net') as Item['priceMode'],
            account: cell(row, 'account') || before?.account || '',
            taxClass: cell(row, 'class') || before?.taxClass || 'standard',
            supply: (cell(row, 'supply') || before?.supply || 'goods') as Item['supply'],
            keys: [],
          },
        };
      }),
    columnOf: (path) => ({ priceMode: 'price holds', taxClass: 'class' })[path] ?? path,
  },
  exchangeRates: {
    title: 'Exchange rates',
    heads: ['currency', 'day', 'rate', 'source'],
    write: (rate) => [[rate.currency, rate.date, rate.perHome, rate.source]],
    read: (rows) =>
      rows.map((row) => {
        const [code, date] = [cell(row, 'currency').toUpperCase(), cell(row, 'day')];
        return {
          rows: [row.row],
          value: {
            id: exchangeRateId(code, date),
            currency: code as ExchangeRate['currency'],
            date: date as ExchangeRate['date'],
            perHome: cell(row, 'rate') as ExchangeRate['perHome'],
            source: cell(row, 'source'),
          },
        };
      }),
    columnOf: (path) => ({ date: 'day', perHome: 'rate' })[path] ?? path,
  },
};
