import { blankCustomer, type Customer, mainNumber } from '@/core/parties/customer';
import type { CustomerRow } from '../rows';
import { type Columns, cell, last } from './columns';

/** The customer's numbers with this one first; a number that is known keeps what the registry said of it. */
function withMainNumber(before: Customer, number: string, country: string): Customer['taxNumbers'] {
  const known = before.taxNumbers.find((one) => one.number === number);
  const others = before.taxNumbers.filter((one) => one.number !== number);
  if (number === '') return before.taxNumbers;
  return [known ?? { country, number, check: null }, ...(known === undefined ? others.slice(1) : others)];
}

export const CUSTOMER_COLUMNS: Columns<CustomerRow> = {
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
};
