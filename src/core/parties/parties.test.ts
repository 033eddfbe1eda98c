import { isoDate } from '@/core/kernel/date';
import { validated } from '@/core/kernel/validate';
import { addressLines } from './address';
import { blankCustomer, type Customer, customerSchema } from './customer';
import { isIban, writeIban } from './iban';
import { isTerms, offsetFrom, readTerms, readTypedDate, termsSaying } from './terms';

const on = isoDate('2026-01-31');
const today = isoDate('2026-11-23');

describe('terms', () => {
  test.each([
    ['14d', '2026-02-14'],
    ['2w', '2026-02-14'],
    ['1m', '2026-02-28'],
    ['eom', '2026-01-31'],
    ['eom+10d', '2026-02-10'],
    ['0d', '2026-01-31'],
    [' EOM+1D ', '2026-02-01'],
    ['+14', '2026-02-14'],
    ['net 30', '2026-03-02'],
    ['Net30', '2026-03-02'],
    ['10 days', '2026-02-10'],
    // 60 days from 31 January is 1 April.
    ['60d eom', '2026-04-30'],
  ])('%s from 31 January is %s', (terms, day) => {
    expect(isTerms(terms)).toBe(true);
    expect(offsetFrom(on, terms)).toBe(day);
  });
  test.each(['', '14', 'd14', 'eom10d', '-3d', '1y', '9999d'])('%p is none', (terms) =>
    expect(isTerms(terms)).toBe(false),
  );

  test.each([
    // What the customer usually has, wherever it says the same.
    ['28d', 'eom+28d', 'eom+28d'],
    ['28d', '30d', '28d'],
    // 15 February is 15 days on.
    ['2026-02-15', '30d', '15d'],
    ['30% 0d + 70% eom+10d, 2% 7d', '30d', '30% 0d + 70% 10d, 2% 7d'],
    ['30d, 2% 10d', '30d', '30d, 2% 10d'],
    // Beyond three digits of days no terms say it.
    ['2031-01-31', '30d', '30d'],
  ])('a document that said %s of a customer with %p is said again by %s', (typed, usual, again) => {
    const said = readTerms(on, typed);
    if (said === null) throw new Error(typed);
    expect(termsSaying(said, on, usual)).toBe(again);
  });
});

describe('a bare day', () => {
  test.each([
    ['24', '2026-11-23', '2026-11-24'],
    ['3', '2026-11-23', '2026-11-03'],
    ['31', '2026-11-23', '2026-12-31'],
    ['31', '2026-02-10', '2026-03-31'],
    ['29', '2026-02-10', '2026-03-29'],
  ])('%s typed on %s is %s', (typed, when, day) => expect(readTypedDate(typed, isoDate(when), on)).toBe(day));
  test.each(['0', '32', '99'])('%s is none', (typed) => expect(readTypedDate(typed, today, on)).toBeNull());
});

describe('a typed day', () => {
  test.each([
    ['today', '2026-11-23'],
    ['2026-02-28', '2026-02-28'],
    ['23/11', '2026-11-23'],
    ['1.2.27', '2027-02-01'],
    ['5 nov', '2026-11-05'],
    ['5 November 2025', '2025-11-05'],
    ['1m', '2026-02-28'],
    // 23 November 2026 is a Monday.
    ['tomorrow', '2026-11-24'],
    ['yesterday', '2026-11-22'],
    ['mon', '2026-11-30'],
    ['Friday', '2026-11-27'],
    ['sun', '2026-11-29'],
  ])('%s is %s', (typed, day) => expect(readTypedDate(typed, today, on)).toBe(day));
  test.each(['31/2', 'soon', '2026-02-30', '12/13', '1 foo', 'monthly', 'sunk', 'net', '+'])('%s is none', (typed) => {
    expect(readTypedDate(typed, today, on)).toBeNull();
  });
});

describe('account numbers', () => {
  test('pass by their check digits', () => {
    expect(isIban('IE31 CPTB 9900 0012 3456 78')).toBe(true);
    expect(isIban('IE32CPTB99000012345678')).toBe(false);
    expect(isIban('IE31CPTB9900001234567')).toBe(false);
    expect(writeIban('ie31cptb99000012345678')).toBe('IE31 CPTB 9900 0012 3456 78');
  });
});

describe('a customer', () => {
  const whole: Customer = {
    ...blankCustomer('c', 'Clew Bay Salmon Co-op', 'IE'),
    address: { street: 'Old Fish Quay\nShed 2', city: 'Westport', region: '', postalCode: 'F28', country: 'IE' },
  };
  test('is kept with empty parts that may be empty', () => {
    expect(validated(customerSchema, whole).ok).toBe(true);
    expect(addressLines(whole.address, () => 'Ireland')).toEqual([
      'Old Fish Quay',
      'Shed 2',
      'Westport',
      'F28',
      'Ireland',
    ]);
  });
  test.each([
    ['DE', 'Kiel', '', '24103', ['24103 Kiel']],
    ['US', 'Eastsound', 'WA', '98245', ['Eastsound, WA 98245']],
    ['CA', 'Halifax', 'NS', 'B3H 0A1', ['Halifax NS B3H 0A1']],
    ['AU', 'Hobart', '', '7000', ['Hobart 7000']],
    ['GB', 'Whitby', 'North Yorkshire', 'YO21 1AA', ['Whitby', 'North Yorkshire', 'YO21 1AA']],
    ['IN', 'Kochi', 'Kerala', '682001', ['Kochi 682001', 'Kerala']],
  ])('of %s has its postal code where the post there looks for it', (country, city, region, postalCode, lines) =>
    expect(addressLines({ street: '', city, region, postalCode, country }, () => '')).toEqual(lines),
  );
  test.each<[object, string]>([
    [{ name: '  ' }, 'name'],
    [{ taxNumbers: [{ country: 'IE', number: 'IE7654321F', check: null }] }, 'taxNumbers[0].number'],
    [{ kind: 'friend' }, 'kind'],
    [{ terms: 'soon' }, 'terms'],
    [{ email: 'nobody' }, 'email'],
    [{ endpoint: { scheme: '9935', id: '' } }, 'endpoint.id'],
    [{ endpoint: { scheme: 'mail', id: 'x' } }, 'endpoint.scheme'],
    [{ mandate: { reference: 'M-1', iban: '' } }, 'mandate.iban'],
    [{ mandate: { reference: '', iban: 'IE31CPTB99000012345678' } }, 'mandate.reference'],
    [{ mandate: { reference: 'M-1', iban: 'IE31CPTB99000012345679' } }, 'mandate.iban'],
    [{ address: { ...whole.address, country: 'EI' } }, 'address.country'],
  ])('%p is refused', (over, path) => {
    const result = validated(customerSchema, { ...whole, ...over });
    expect(result.ok ? [] : result.refusals.map((r) => r.path)).toContain(path);
  });
});
