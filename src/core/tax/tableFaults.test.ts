import { recordsOf, registeredIn, supplyOf } from 'tests/taxSetup';
import { isoDate } from '@/core/kernel/date';
import type { DecisionRow } from './decisionTable';
import { determine, explainDecision, relationOf } from './determine';
import { tableFaults } from './tableFaults';
import { knownClasses, prepareSetup } from './taxSetup';

const HOME = { country: 'IE', region: '', postalCode: '', city: '' };
const records = recordsOf(['IE', 'EU'], [registeredIn('IE')]);

const row = (id: string, over: Partial<DecisionRow> = {}): DecisionRow => ({
  id,
  name: id,
  registeredIn: [],
  supply: [],
  taxClass: [],
  customer: [],
  number: [],
  shipFrom: [],
  shipTo: [],
  from: '',
  until: '',
  result: { kind: 'code', code: 'IE-S' },
  source: '',
  ...over,
});
const faultsOf = (...rows: DecisionRow[]) => tableFaults(prepareSetup({ ...records, rows }), HOME);

describe('rows that can never be reached', () => {
  test('come after one that asks for nothing', () => {
    expect(faultsOf(row('a'), row('b', { supply: ['goods'] })).unreachable).toEqual(['b']);
  });
  test('are covered by several rows together', () => {
    const rows = [
      row('goods', { supply: ['goods'] }),
      row('service', { supply: ['service'] }),
      row('digital', { supply: ['digital'] }),
    ];
    expect(faultsOf(...rows, row('all')).unreachable).toEqual(['all']);
    expect(faultsOf(...rows.slice(1), row('all')).unreachable).toEqual([]);
  });
  test('are not those that begin or end at another time', () => {
    const early = row('early', { until: isoDate('2025-12-31') });
    expect(faultsOf(early, row('later')).unreachable).toEqual([]);
    expect(faultsOf(row('always'), row('later', { from: isoDate('2026-01-01') })).unreachable).toEqual(['later']);
  });
  test('ask for a relation that the territory does not know', () => {
    // Ireland is a whole country: nothing lies elsewhere in it.
    expect(faultsOf(row('state', { shipTo: ['country'] })).unreachable).toEqual(['state']);
  });
});

describe('two taxes that would both charge one supply', () => {
  const [vat] = records.taxes.filter(({ id }) => id === 'IE-VAT');
  const twin = { ...vat, id: 'IE-MINE', name: 'My VAT' } as (typeof records.taxes)[number];
  const stack = row('stack', { result: { kind: 'stack' } });
  test('are named where a row charges all taxes of a place', () => {
    const setup = prepareSetup({ ...records, taxes: [...records.taxes, twin], rows: [stack] });
    expect(tableFaults(setup, HOME).together).toEqual(['VAT and My VAT of Ireland']);
    expect(faultsOf(stack).together).toEqual([]);
  });
  test('are fine one after the other, for other classes, and where rows name codes', () => {
    const later = { ...twin, rates: twin.rates.map((rate) => ({ ...rate, taxClass: 'mine' })) };
    const taxes = [...records.taxes, later];
    expect(tableFaults(prepareSetup({ ...records, taxes, rows: [stack] }), HOME).together).toEqual([]);
    const named = prepareSetup({ ...records, taxes: [...records.taxes, twin], rows: [row('a')] });
    expect(tableFaults(named, HOME).together).toEqual([]);
  });
});

describe('other faults', () => {
  test('a row for a registration we do not have waits', () => {
    expect(faultsOf(row('us', { registeredIn: ['US-WA'] }))).toMatchObject({ waiting: ['us'], unreachable: [] });
  });
  test('a code that is not in Setup is named', () => {
    expect(faultsOf(row('x', { result: { kind: 'code', code: 'GONE' } })).unknownCode).toEqual(['x']);
  });
  test('what no row catches is said by its conditions', () => {
    const { gaps } = faultsOf(row('goods', { supply: ['goods'] }));
    expect(gaps).toEqual([
      { supply: 'service, digital', taxClass: '', customer: '', number: '', shipTo: '', days: '' },
    ]);
  });
  test('nothing is missing when a row asks for nothing, and nothing can be said without a registration', () => {
    expect(faultsOf(row('all')).gaps).toEqual([]);
    expect(tableFaults(prepareSetup({ ...records, registrations: [], rows: [] }), HOME).gaps).toEqual([]);
  });
  test('the Irish pack leaves only classes it does not know to the bookkeeper', () => {
    const { gaps } = tableFaults(prepareSetup(records), HOME);
    expect(gaps.length).toBeGreaterThan(0);
    for (const gap of gaps) expect(gap.taxClass).toMatch(/any other|exempt/);
  });
});

describe('how an address lies to a territory', () => {
  const washington = { country: 'US', region: 'WA' };
  test.each([
    ['US', 'wa', 'territory'],
    ['US', 'OR', 'country'],
    ['CA', 'BC', 'outside'],
  ])('%s %s is %s of Washington', (country, region, relation) => {
    const address = { country, region, postalCode: '', city: '' };
    expect(relationOf(washington, address, isoDate('2026-01-01'))).toBe(relation);
  });
});

describe('the trail', () => {
  test('counts rows of registrations we do not have in one sentence', () => {
    const setup = prepareSetup({ ...records, rows: [row('us', { registeredIn: ['US-WA'] }), row('all')] });
    const trail = explainDecision(setup, supplyOf('goods standard consumer', 'IE', 'IE', '2026-01-01'));
    expect(trail.map((reason) => reason.text)).toEqual([
      '1 row speaks of registrations we do not have on this day',
      'row “all” applies',
      'so the code is IE-S',
    ]);
  });
  test('says when no registration is in force', () => {
    const ended = registeredIn('IE', { until: isoDate('2025-12-31') });
    const setup = prepareSetup({ ...records, registrations: [ended] });
    const supply = supplyOf('goods standard consumer', 'IE', 'IE', '2026-01-01');
    expect(determine(setup, supply).problem).toContain('No registration is in force');
    expect(explainDecision(setup, supply).at(-1)?.held).toBe(false);
  });
});

test('classes are gathered from rates, codes and rows', () => {
  expect(knownClasses({ taxes: [], codes: [], rows: [row('a', { taxClass: ['boats'] })] })).toEqual([
    'boats',
    'standard',
  ]);
});
