import { at, recordsOf, registeredIn } from 'tests/taxSetup';
import { isoDate } from '@/core/kernel/date';
import { decimal } from '@/core/kernel/decimal';
import { validated } from '@/core/kernel/validate';
import { wordWanted } from '@/core/wording/wanted';
import { closesCircle, type Jurisdiction, jurisdictionSchema, lineage, territoryOf } from './jurisdiction';
import { firstPacks, PACK_TITLES, packOf } from './packs';
import { planPack, planSize, recordsOfPacks } from './packs/plan';
import { findPlace, indexPlaces, type Place, placeSchema } from './place';
import { isActive } from './registration';
import { tableFaults } from './tableFaults';
import { rateOn, type Tax, type TaxRate, taxSchema, withRate } from './tax';
import { bareNumber, taxNumberFault } from './taxNumber';
import { prepareSetup } from './taxSetup';
import { unionOf } from './unions';
import { withholdingRateOn, withholdingTypeSchema } from './withholding';

const paths = (schema: Parameters<typeof validated>[0], value: unknown): string[] => {
  const result = validated(schema, value);
  return result.ok ? [] : result.refusals.map((refusal) => refusal.path);
};

describe('jurisdictions', () => {
  const j = (id: string, kind: Jurisdiction['kind'], code: string, parentId = ''): Jurisdiction => ({
    id,
    name: id,
    kind,
    code,
    parentId,
  });
  const known = new Map(
    [j('US', 'country', 'US'), j('WA', 'state', 'US-WA', 'US'), j('KING', 'county', '', 'WA')].map((x) => [x.id, x]),
  );
  test('know what they lie in', () => {
    expect(lineage(known, 'KING').map((x) => x.id)).toEqual(['KING', 'WA', 'US']);
    expect(territoryOf(known, 'KING')).toEqual({ country: 'US', region: 'WA' });
    expect(territoryOf(known, 'US')).toEqual({ country: 'US', region: '' });
  });
  test('never lie in themselves', () => {
    expect(closesCircle(known, 'US', 'KING')).toBe(true);
    expect(closesCircle(known, 'KING', 'US')).toBe(false);
  });
  test.each<[string, object, string]>([
    ['a country without its code', { kind: 'country', code: '' }, 'code'],
    ['a country inside another', { kind: 'country', parentId: 'US' }, 'parentId'],
    ['a state that lies nowhere', { kind: 'state', code: 'US-OR', parentId: '' }, 'parentId'],
    ['small letters', { id: 'us' }, 'id'],
  ])('%s is refused', (_, over, path) => {
    expect(paths(jurisdictionSchema, { ...j('US', 'country', 'US'), ...over })).toContain(path);
  });
});

const rate = (taxClass: string, from: string, percent: string, until = ''): TaxRate =>
  ({ taxClass, from, until, percent, perUnit: '', source: '' }) as TaxRate;
const VAT: Tax = {
  id: 'VAT',
  jurisdictionId: 'IE',
  name: 'VAT',
  rates: [
    rate('standard', '2012-01-01', '23'),
    rate('standard', '2020-09-01', '21'),
    rate('standard', '2021-03-01', '23'),
  ],
};

describe('a dated rate', () => {
  test.each([
    ['2011-12-31', undefined],
    ['2020-08-31', '23'],
    ['2020-09-01', '21'],
    ['2021-02-28', '21'],
    ['2021-03-01', '23'],
  ])('on %s is %s', (day, percent) => expect(rateOn(VAT, 'standard', isoDate(day))?.percent).toBe(percent));
  test('of every class serves those without their own, also after theirs has ended', () => {
    const tax = { rates: [rate('', '2000-01-01', '6.5'), rate('food', '2000-01-01', '0', '2009-12-31')] };
    expect(rateOn(tax, 'food', isoDate('2009-12-31'))?.percent).toBe('0');
    expect(rateOn(tax, 'food', isoDate('2010-01-01'))?.percent).toBe('6.5');
    expect(rateOn(tax, 'boats', isoDate('2010-01-01'))?.percent).toBe('6.5');
  });
  test('is given without touching the others', () => {
    const changed = withRate(VAT, rate('standard', '2027-01-01', '24'));
    expect(changed.rates.map((r) => r.percent)).toEqual(['23', '21', '23', '24']);
  });
  test.each<[string, TaxRate[], string]>([
    ['two on one day', [rate('s', '2020-01-01', '1'), rate('s', '2020-01-01', '2')], 'rates[1].from'],
    ['neither percent nor amount', [rate('s', '2020-01-01', '')], 'rates[0].percent'],
    ['both', [{ ...rate('s', '2020-01-01', '1'), perUnit: decimal('2') }], 'rates[0].percent'],
    ['below zero', [rate('s', '2020-01-01', '-1')], 'rates[0].percent'],
    ['an end before its beginning', [rate('s', '2020-01-01', '1', '2019-01-01')], 'rates[0].until'],
  ])('%s is refused', (_, rates, path) => expect(paths(taxSchema, { ...VAT, rates })).toContain(path));
});

describe('places', () => {
  const place = (id: string, ...matches: string[]): Place => ({
    id,
    name: id,
    stack: ['US-WA'],
    rounding: 'together',
    matches: matches.map((text) => {
      const [country = '', region = '', range = '', ...city] = text.split(' ');
      const [postalFrom = '', postalTo = postalFrom] = range === '-' ? [] : range.split('..');
      return { country, region: region === '-' ? '' : region, postalFrom, postalTo, city: city.join(' ') };
    }),
  });
  const index = indexPlaces([
    place('STATE', 'US WA'),
    place('SEATTLE', 'US WA - Seattle'),
    place('DOWNTOWN', 'US WA 98101..98104'),
    place('TWIN-A', 'US WA 98300..98399'),
    place('TWIN-B', 'US WA 98350..98460'),
    place('HARBOUR', 'US WA 98200..98299'),
    place('QUAY', 'US WA 98220..98225'),
    place('GALWAY', 'IE - H91..H91'),
  ]);
  test.each([
    ['a postal range goes before a city', 'US WA 98103 Seattle', 'DOWNTOWN'],
    ['a city goes before its state', 'US WA 98195 seattle', 'SEATTLE'],
    ['the state takes the rest', 'US WA 99362 Walla', 'STATE'],
    ['a longer code is read over the length of the range', 'US WA 98101-1234 Nowhere', 'DOWNTOWN'],
    ['letters and blanks in a code', 'IE - H91X0X0 Galway', 'GALWAY'],
    ['another country', 'CA ON', 'none'],
    ['two ranges that overlap in part', 'US WA 98355 Town', 'TWIN-A or TWIN-B'],
    ['a range inside another goes before it', 'US WA 98222 Town', 'QUAY'],
    ['the wider range takes the rest', 'US WA 98230 Town', 'HARBOUR'],
    ['a state spelled out', 'US Washington 99362 Walla', 'STATE'],
  ])('%s', (_, address, out) => {
    const found = findPlace(index, at(address));
    const said =
      found.kind === 'one'
        ? found.place.id
        : found.kind === 'none'
          ? 'none'
          : found.places.map((p) => p.id).join(' or ');
    expect(said).toBe(out);
  });
  test.each<[string, object, string]>([
    ['no jurisdiction', { stack: [] }, 'stack'],
    ['a jurisdiction twice', { stack: ['A', 'A'] }, 'stack[1]'],
    [
      'a range backwards',
      { matches: [{ country: 'US', region: '', postalFrom: '99', postalTo: '10', city: '' }] },
      'matches[0].postalTo',
    ],
    [
      'half a range',
      { matches: [{ country: 'US', region: '', postalFrom: '99', postalTo: '', city: '' }] },
      'matches[0].postalTo',
    ],
  ])('%s is refused', (_, over, path) =>
    expect(paths(placeSchema, { ...place('P', 'US WA'), ...over })).toContain(path),
  );
});

describe('customs unions', () => {
  test.each([
    ['FR', '2026-01-01', 'EU'],
    ['GB', '2020-12-31', 'EU'],
    ['GB', '2021-01-01', null],
    ['HR', '2013-06-30', null],
    ['NO', '2026-01-01', null],
  ])('%s on %s: %s', (country, day, union) => expect(unionOf(country, isoDate(day))).toBe(union));
});

describe('tax numbers', () => {
  test.each([
    ['IE', 'IE7654321G'],
    ['IE', '8100234D'],
    ['DE', 'DE 812345673'],
    ['FR', 'FR31000123455'],
    ['NL', 'NL000123456B01'],
    ['ES', 'ESB00123455'],
    ['IT', 'IT00123450009'],
    ['GB', 'GB999000103'],
    ['NO', 'NO123456785MVA'],
    ['CH', 'CHE-123.456.788 MWST'],
    ['AU', '56 000 123 455'],
    ['NZ', '12-345-607'],
    ['SG', '200312345A'],
    ['IN', '27AAAAA0000A1Z2'],
    ['CA', '123456782RT0001'],
    ['KE', 'P051234567X'],
    ['ZA', '4123456789'],
    ['BR', 'anything'],
  ])('%s %s passes', (country, number) => expect(taxNumberFault(country, number)).toBeNull());
  test.each([
    ['IE', 'IE7654321F', 'check digits'],
    ['DE', 'DE812345674', 'check digits'],
    ['FR', 'FR32000123455', 'check digits'],
    ['NL', 'NL000123457B01', 'check digits'],
    ['ES', 'ESB00123456', 'check digits'],
    ['IT', 'IT00123450008', 'check digits'],
    ['GB', 'GB999000104', 'check digits'],
    ['NO', '123456786', 'check digits'],
    ['CH', 'CHE123456789', 'check digits'],
    ['AU', '56000123456', 'check digits'],
    ['NZ', '12345608', 'check digits'],
    ['IN', '27AAAAA0000A1Z3', 'check digits'],
    ['CA', '123456783', 'check digits'],
    ['IE', 'hello', 'looks like'],
    ['ZA', '5123456789', 'looks like'],
  ])('%s %s: %s', (country, number, words) => {
    const fault = taxNumberFault(country, number);
    expect(fault === null ? '' : wordWanted(fault)).toContain(words);
  });
  test('are compared without dots, dashes and blanks', () =>
    expect(bareNumber('che-123.456.788 mwst')).toBe('CHE123456788MWST'));
});

describe('a registration', () => {
  test.each([
    ['2025-12-31', false],
    ['2026-01-01', true],
    ['2026-06-30', true],
    ['2026-07-01', false],
  ])('from January to June on %s: %s', (day, active) => {
    expect(isActive({ from: isoDate('2026-01-01'), until: isoDate('2026-06-30') }, isoDate(day))).toBe(active);
  });
});

describe('withholding types', () => {
  const [vat] = packOf('KE').withholdingTypes;
  test.each([
    ['2014-12-31', undefined],
    ['2019-11-06', '6'],
    ['2019-11-07', '2'],
  ])('on %s: %s', (day, percent) => expect(vat && withholdingRateOn(vat, isoDate(day))?.percent).toBe(percent));
  test('more than all is refused', () => {
    expect(paths(withholdingTypeSchema, { ...vat, rates: [{ from: '2020-01-01', percent: '101' }] })).toEqual([
      'rates[0].percent',
    ]);
  });
});

describe('starter packs', () => {
  test.each(PACK_TITLES.map(({ id }) => id))('%s is whole: every row, code and stack names what is there', (id) => {
    const pack = packOf(id);
    const ids = (list: readonly { id: string }[]) => new Set(list.map((record) => record.id));
    const [jurisdictions, taxes, codes] = [ids(pack.jurisdictions), ids(pack.taxes), ids(pack.codes)];
    for (const j of pack.jurisdictions) if (j.parentId !== '') expect(jurisdictions).toContain(j.parentId);
    for (const tax of pack.taxes) {
      expect(jurisdictions).toContain(tax.jurisdictionId);
      for (const r of tax.rates) expect(r.source).not.toBe('');
    }
    for (const code of pack.codes) for (const c of code.components) expect(taxes).toContain(c.taxId);
    for (const place of pack.places) for (const j of place.stack) expect(jurisdictions).toContain(j);
    for (const row of pack.rows) {
      expect(row.source).not.toBe('');
      if (row.result.kind === 'code') expect(codes).toContain(row.result.code);
      for (const j of row.registeredIn) expect(jurisdictions).toContain(j);
    }
    expect(pack.knownAt <= '2026-11-23').toBe(true);
  });
  test.each(PACK_TITLES.map(({ id }) => id).filter((id) => id !== 'EU'))(
    '%s alone has no row that is never reached',
    (id) => {
      const pack = packOf(id);
      const setup = prepareSetup(recordsOf([id], [registeredIn(pack.registration?.jurisdictionId ?? id)]));
      const { country, jurisdictionId } = pack.registration ?? { country: id, jurisdictionId: id };
      const home = { country, region: jurisdictionId.split('-')[1] ?? '', postalCode: '', city: '' };
      expect(tableFaults(setup, home)).toMatchObject({ unreachable: [], unknownCode: [], together: [] });
    },
  );
  test('added twice adds nothing the second time', () => {
    const records = recordsOf(['IE', 'EU', 'US-WA'], []);
    for (const id of ['IE', 'EU', 'US-WA'])
      expect(
        planSize(
          planPack(
            packOf(id),
            records,
            records.places.map((p) => p.id),
          ),
        ),
      ).toBe(0);
  });
  test.each<[string, string, readonly string[] | null, string]>([
    ['IE', '', ['IE', 'EU'], 'IE'],
    ['GB', '', ['GB'], 'GB'],
    ['CA', 'AB', ['CA'], 'CA'],
    ['IN', 'Karnataka', ['IN'], 'IN-KA'],
    ['IN', 'Nowhere', null, ''],
    ['US', 'WA', ['US-WA'], 'US-WA'],
    ['US', 'Oregon', null, ''],
    ['JP', '', null, ''],
  ])('of %s %s to begin with', (country, region, ids, territory) => {
    const first = firstPacks(country, region, isoDate('2026-11-23'));
    expect(first === null ? null : first.packs.map(({ id }) => id)).toEqual(ids);
    if (first === null) return;
    expect(first.jurisdictionId).toBe(territory);
    // Begun with it, each row decides and no supply is charged twice.
    const records = { ...recordsOfPacks(first.packs), registrations: [registeredIn(territory)] };
    const home = { country, region: territory.split('-')[1] ?? '', postalCode: '', city: '' };
    expect(tableFaults(prepareSetup(records), home)).toMatchObject({ unreachable: [], unknownCode: [], together: [] });
  });
  test('overwrites nothing, and gives a tax the rates it lacks', () => {
    const mine = { ...VAT, id: 'IE-VAT', name: 'My VAT', rates: [rate('standard', '2021-03-01', '22')] };
    const plan = planPack(packOf('IE'), { ...recordsOf([], []), taxes: [mine] }, []);
    const tax = plan.taxes.find((t) => t.id === 'IE-VAT');
    expect(tax?.name).toBe('My VAT');
    expect(tax && rateOn(tax, 'standard', isoDate('2026-01-01'))?.percent).toBe('22');
    expect(tax && rateOn(tax, 'reduced', isoDate('2026-01-01'))?.percent).toBe('13.5');
  });
  test('puts rows for what stays inside before rows for what leaves, whichever pack comes first', () => {
    for (const order of [
      ['IE', 'US-WA'],
      ['US-WA', 'IE'],
    ]) {
      const { rows } = recordsOf(order, []);
      const stack = rows.findIndex((row) => row.id === 'US-WA-stack');
      expect(stack).toBeLessThan(rows.findIndex((row) => row.id === 'IE-export'));
    }
  });
});
