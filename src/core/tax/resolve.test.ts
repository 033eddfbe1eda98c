import { recordsOf, registeredIn } from 'tests/taxSetup';
import { isoDate } from '@/core/kernel/date';
import { decimal } from '@/core/kernel/decimal';
import type { Place } from './place';
import { type ResolvedTax, resolveTax, type Unresolved } from './resolve';
import type { Tax, TaxRate } from './tax';
import type { TaxCode } from './taxCode';
import { readStackKey, readTaxKey, stackKey, taxKeyOf, withRatesOf } from './taxKey';
import { prepareSetup } from './taxSetup';

const DAY = isoDate('2026-01-15');
const rate = (over: Partial<TaxRate>): TaxRate => ({
  taxClass: 'standard',
  from: isoDate('2020-01-01'),
  until: '',
  percent: '',
  perUnit: '',
  source: 'Act',
  ...over,
});
const tax = (id: string, ...rates: TaxRate[]): Tax => ({ id, jurisdictionId: 'IE', name: id, rates });
const code = (id: string, ...components: TaxCode['components'][number][]): TaxCode => ({
  id,
  name: `${id} {rate}`,
  category: 'S',
  components,
  legends: [],
  exemptionCode: '',
  boxBase: 'B',
  boxTax: 'T',
});
const part = (taxId: string, over: object = {}) => ({
  taxId,
  taxClass: 'standard',
  family: '',
  compound: false,
  ...over,
});

const setup = prepareSetup({
  ...recordsOf(['IE'], [registeredIn('IE')]),
  taxes: [
    tax('VAT', rate({ percent: decimal('10') }), rate({ percent: decimal('12'), from: isoDate('2026-01-10') })),
    tax('LEVY', rate({ percent: decimal('5') })),
    tax('BOTTLE', rate({ perUnit: decimal('0.25') })),
    tax('GONE', rate({ percent: decimal('3'), until: isoDate('2025-12-31') })),
  ],
  codes: [
    code('PLAIN', part('VAT')),
    code('BOTH', part('VAT', { family: 'one' }), part('LEVY', { family: 'one' })),
    code('ON-TOP', part('VAT'), part('LEVY', { compound: true })),
    code('DEPOSIT', part('BOTTLE'), part('VAT', { compound: true })),
    code('ENDED', part('GONE')),
    code('LOST', part('NOWHERE')),
  ],
});
const resolve = (key: string, relief: Parameters<typeof resolveTax>[3] = () => null) =>
  resolveTax(setup, key, DAY, relief, 'en') as ResolvedTax & Unresolved;

describe('a code on a day', () => {
  test.each([
    ['PLAIN', '12', 'PLAIN 12'],
    ['BOTH', '17', 'BOTH 17'],
    // 12 % and 5 % of 112 % are 17.6 %.
    ['ON-TOP', '17.6', 'ON-TOP 17.6'],
    ['DEPOSIT', '12', 'DEPOSIT 12'],
  ])('%s charges %s %% together and is named %s', (key, percent, name) => {
    expect([resolve(key).percent, resolve(key).name]).toEqual([percent, name]);
  });
  test('is as old as the youngest of its rates', () => {
    expect(resolve('BOTH').since).toBe('2026-01-10');
    expect(resolve('BOTH').components.map((c) => c.since)).toEqual(['2026-01-10', '2020-01-01']);
  });
  test('rounds taxes of one family together and others apart', () => {
    expect(resolve('BOTH').components.map((c) => c.family)).toEqual(['one', 'one']);
    expect(resolve('ON-TOP').components.map((c) => c.family)).toEqual(['VAT', 'LEVY']);
  });
  test('keeps an amount per unit beside the percentages', () => {
    expect(resolve('DEPOSIT').components.map((c) => [c.percent, c.perUnit])).toEqual([
      ['', '0.25'],
      ['12', ''],
    ]);
  });
  test('keeps jurisdiction, source and boxes', () => {
    expect(resolve('PLAIN')).toMatchObject({ boxBase: 'B', boxTax: 'T' });
    expect(resolve('PLAIN').components[0]).toMatchObject({ jurisdictionName: 'Ireland', source: 'Act' });
  });
  test.each([
    ['ENDED', 'GONE has no standard rate on 2026-01-15'],
    ['LOST', 'The tax NOWHERE is not in Setup any more'],
    ['UNKNOWN', 'The tax code UNKNOWN is not in Setup any more'],
    ['@UNKNOWN/standard', 'The place UNKNOWN is not in Setup any more'],
  ])('%s cannot be resolved: %s', (key, words) => expect(resolve(key).problem).toContain(words));
});

describe('relief', () => {
  const relief = () => ({ certificate: 'C', reason: 'school' });
  test('takes percentages and amounts per unit away, and keeps what would have been', () => {
    expect(resolve('DEPOSIT', relief).components.map((c) => [c.percent, c.perUnit, c.insteadOf])).toEqual([
      ['0', '', ''],
      ['0', '', '12'],
    ]);
  });
  test('of everything makes the line exempt, with the reason said once', () => {
    const exempt = resolve('BOTH', relief);
    expect([exempt.category, exempt.legend]).toEqual(['E', 'Exempt in Ireland, certificate C: school.']);
  });
});

test('keys of stacks are told from codes, also with a slash in the class', () => {
  expect(readStackKey(stackKey('WA-SEATTLE', 'standard'))).toEqual({ placeId: 'WA-SEATTLE', taxClass: 'standard' });
  expect(readStackKey('IE-S')).toBeNull();
});

describe('the stack of a place', () => {
  const place: Place = {
    id: 'GALWAY',
    name: 'Galway',
    stack: ['IE'],
    rounding: 'together',
    matches: [{ country: 'IE', region: '', postalFrom: '', postalTo: '', city: '' }],
  };
  const stack = (taxClass: string, ...rates: TaxRate[]) => {
    const records = { ...recordsOf(['IE'], [registeredIn('IE')]), places: [place], taxes: [tax('VAT', ...rates)] };
    const found = resolveTax(prepareSetup(records), stackKey('GALWAY', taxClass), DAY, () => null, 'en');
    return 'problem' in found ? found.problem : [found.category, found.percent, found.components.length];
  };
  const every = rate({ taxClass: '', percent: decimal('23') });
  const nothing = (taxClass: string) => rate({ taxClass, percent: decimal('0') });
  test('at 0 % is zero rated, or exempt by its class', () => {
    expect(stack('food', every, nothing('food'))).toEqual(['Z', '0', 1]);
    expect(stack('exempt', every, nothing('exempt'))).toEqual(['E', '0', 1]);
  });
  test('takes the rate of every class where a class has none of its own, but never for what is exempt', () => {
    expect(stack('boats', every)).toEqual(['S', '23', 1]);
    expect(stack('exempt', every)).toEqual(['E', '0', 0]);
  });
});

describe('taxes that one line leaves out or adds', () => {
  test.each([
    ['BOTH~-LEVY', '12', 'BOTH 12 without LEVY'],
    ['PLAIN~+LEVY/standard', '17', 'PLAIN 17 with LEVY'],
    // 5 % goes out, 5 % of another family comes in.
    ['BOTH~+LEVY/standard~-LEVY', '17', 'BOTH 17 without LEVY, with LEVY'],
  ])('%s charges %s %% together', (key, percent, name) => {
    const { code: resolved, percent: sum, name: called, boxTax } = resolve(key);
    expect([resolved, sum, called, boxTax]).toEqual([key, percent, name, 'T']);
  });
  test('that leave nothing are refused, as are taxes without a rate', () => {
    expect(resolve('PLAIN~-VAT').problem).toContain('choose a code that charges nothing');
    expect(resolve('PLAIN~+GONE/standard').problem).toContain('no standard rate');
  });
  test('make the same key in any order, and the plain key once nothing is changed', () => {
    const added = { taxId: 'LEVY', taxClass: 'standard' };
    expect(taxKeyOf({ base: '@P/low', without: ['B', 'A', 'A'], added: [added], ratesOf: '' })).toBe(
      '@P/low~+LEVY/standard~-A~-B',
    );
    expect(readTaxKey('@P/low~+LEVY/standard~-A~-B')).toEqual({
      base: '@P/low',
      without: ['A', 'B'],
      added: [added],
      ratesOf: '',
    });
    expect(taxKeyOf({ base: 'PLAIN', without: [], added: [], ratesOf: '' })).toBe('PLAIN');
    expect(readStackKey('@P/low~-A')).toEqual({ placeId: 'P', taxClass: 'low' });
    expect(withRatesOf('PLAIN~-A', isoDate('2026-01-31'))).toBe('PLAIN~-A~=2026-01-31');
    expect(withRatesOf('PLAIN~-A~=2026-01-31', '')).toBe('PLAIN~-A');
  });
});
