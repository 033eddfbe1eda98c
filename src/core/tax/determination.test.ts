import fc from 'fast-check';
import { recordsOf, registeredIn, setupOf, supplyOf } from 'tests/taxSetup';
import { currency } from '@/core/kernel/currency';
import { isoDate } from '@/core/kernel/date';
import { decimal, ratioOf } from '@/core/kernel/decimal';
import { total } from '@/core/kernel/money';
import { add, compare, ZERO } from '@/core/kernel/ratio';
import { calculate } from './calculate';
import { CUSTOMER_KINDS, type DecisionRow, NUMBER_STATES, RELATIONS, SUPPLY_KINDS } from './decisionTable';
import { determine, determiner, explainDecision, type Supply, type Verdict } from './determine';
import { type Relief, type ResolvedTax, resolveTax } from './resolve';
import { tableFaults } from './tableFaults';
import { prepareSetup, type TaxSetup } from './taxSetup';

/* Worked cases of "which tax applies", across the starter packs, in the words of the packs' own sources. */

const IRISH = setupOf(['IE', 'EU'], ['IE']);
const GERMAN = setupOf(['DE', 'EU'], ['DE']);
/** Its sales to consumers in other member states stay below the threshold of the union. */
const SMALL_IRISH = prepareSetup(recordsOf(['IE', 'EU'], [registeredIn('IE', { unionSalesAtHome: true })]));
const FRENCH = setupOf(['FR', 'EU'], ['FR']);
const DUTCH = setupOf(['NL', 'EU'], ['NL']);
const SPANISH = setupOf(['ES', 'EU'], ['ES']);
const ITALIAN = setupOf(['IT', 'EU'], ['IT']);
const BRITISH = setupOf(['GB'], ['GB']);
const NORWEGIAN = setupOf(['NO'], ['NO']);
const SWISS = setupOf(['CH'], ['CH']);
const WASHINGTON = setupOf(['US-WA'], ['US-WA']);
const CANADIAN = setupOf(['CA'], ['CA']);
/** Registered for the provincial taxes of British Columbia and Quebec, too. */
const CANADIAN_WIDER = prepareSetup(recordsOf(['CA'], [registeredIn('CA', { alsoIn: ['CA-BC', 'CA-QC'] })]));
const AUSTRALIAN = setupOf(['AU'], ['AU']);
const NEW_ZEALAND = setupOf(['NZ'], ['NZ']);
const SINGAPORE = setupOf(['SG'], ['SG']);
const KARNATAKA = setupOf(['IN'], ['IN-KA']);
const KENYAN = setupOf(['KE'], ['KE']);
const SOUTH_AFRICAN = setupOf(['ZA'], ['ZA']);
const THREE = setupOf(['IE', 'EU', 'US-WA', 'DE'], ['IE', 'US-WA', 'DE']);

const NO_RELIEF = () => null;

/** What comes out, in short: `IE-S 23`, `WA-SEATTLE 10.35`, or the problem. */
function answer(setup: TaxSetup, supply: Supply): string {
  const verdict = determine(setup, supply);
  if (verdict.problem !== '') return verdict.problem;
  const tax = resolveTax(setup, verdict.key, supply.day, NO_RELIEF, 'en');
  if ('problem' in tax) return tax.problem;
  const name = verdict.key.startsWith('@') ? verdict.key.slice(1, verdict.key.indexOf('/')) : verdict.key;
  return `${name} ${tax.percent}${setup.registrations.length > 1 ? ` ${verdict.registrationId}` : ''}`;
}

const TODAY = '2026-11-23';
const SEATTLE = 'US WA 98101 Seattle';

type Case = readonly [name: string, setup: TaxSetup, words: string, from: string, to: string, day: string, out: string];

const CASES: readonly Case[] = [
  ['Irish goods to a consumer at home', IRISH, 'goods standard consumer', 'IE', 'IE', TODAY, 'IE-S 23'],
  ['Irish goods to a business at home', IRISH, 'goods standard business verified', 'IE', 'IE', TODAY, 'IE-S 23'],
  ['Irish goods to a harbour board', IRISH, 'goods standard government', 'IE', 'IE', TODAY, 'IE-S 23'],
  ['Irish repair at the reduced rate', IRISH, 'service reduced consumer', 'IE', 'IE', TODAY, 'IE-R 13.5'],
  ['Irish books at zero', IRISH, 'goods zero consumer', 'IE', 'IE', TODAY, 'IE-Z 0'],
  ['Irish exempt service', IRISH, 'service exempt business', 'IE', 'IE', TODAY, 'IE-E 0'],
  ['Irish rate on the last day of the cut', IRISH, 'goods standard consumer', 'IE', 'IE', '2021-02-28', 'IE-S 21'],
  ['Irish rate on the day after the cut', IRISH, 'goods standard consumer', 'IE', 'IE', '2021-03-01', 'IE-S 23'],
  ['Irish goods to a verified German', IRISH, 'goods standard business verified', 'IE', 'DE', TODAY, 'IE-IC 0'],
  ['Irish service to a verified German', IRISH, 'service standard business verified', 'IE', 'DE', TODAY, 'IE-RC 0'],
  ['Irish download to a verified Italian', IRISH, 'digital standard business verified', 'IE', 'IT', TODAY, 'IE-RC 0'],
  [
    'Irish service to a French ministry, verified',
    IRISH,
    'service standard government verified',
    'IE',
    'FR',
    TODAY,
    'IE-RC 0',
  ],
  [
    'Irish goods to an unverified German',
    IRISH,
    'goods standard business unverified',
    'IE',
    'DE',
    TODAY,
    'The tax number of this customer was not verified',
  ],
  ['Irish goods to a German consumer', IRISH, 'goods standard consumer', 'IE', 'DE', TODAY, 'DE 19'],
  ['Irish goods to a French consumer', IRISH, 'goods standard consumer', 'IE', 'FR', TODAY, 'FR 20'],
  ['Irish goods to a business without a number', IRISH, 'goods standard business none', 'IE', 'NL', TODAY, 'NL 21'],
  ['Irish download to a Finnish consumer', IRISH, 'digital standard consumer', 'IE', 'FI', TODAY, 'FI 25.5'],
  ['the same before Finland raised its rate', IRISH, 'digital standard consumer', 'IE', 'FI', '2024-08-31', 'FI 24'],
  ['Irish service to a Spanish consumer', IRISH, 'service standard consumer', 'IE', 'ES', TODAY, 'IE-S 23'],
  ['Irish goods to Norway', IRISH, 'goods standard business', 'IE', 'NO', TODAY, 'IE-EX 0'],
  ['Irish goods to a British consumer', IRISH, 'goods standard consumer', 'IE', 'GB', TODAY, 'IE-EX 0'],
  [
    'Irish goods to Britain while it was inside',
    IRISH,
    'goods standard business verified',
    'IE',
    'GB',
    '2020-12-31',
    'IE-IC 0',
  ],
  ['Irish service to a Kenyan port', IRISH, 'service standard government', 'IE', 'KE', TODAY, 'IE-OS 0'],
  ['Irish service to an American consumer', IRISH, 'service standard consumer', 'IE', 'US', TODAY, 'IE-S 23'],
  ['Irish download to an American consumer', IRISH, 'digital standard consumer', 'IE', 'US', TODAY, 'IE-OS 0'],
  [
    'triangular: from Germany to France',
    IRISH,
    'goods standard business verified',
    'DE',
    'FR',
    TODAY,
    'Goods go from one other member state to another: a triangular or chain supply.',
  ],
  [
    'from Germany to an Irish business',
    IRISH,
    'goods standard business verified',
    'DE',
    'IE',
    TODAY,
    'The goods come from another member state',
  ],
  ['from Germany to an Irish consumer', IRISH, 'goods standard consumer', 'DE', 'IE', TODAY, 'IE 23'],
  [
    'a class nobody knows',
    IRISH,
    'goods ships consumer',
    'IE',
    'IE',
    TODAY,
    'No row of the decision table catches this',
  ],
  [
    'goods sent from China to Ireland',
    IRISH,
    'goods standard consumer',
    'CN',
    'IE',
    TODAY,
    'No row of the decision table catches this',
  ],
  ['German goods at home', GERMAN, 'goods standard consumer', 'DE', 'DE', TODAY, 'DE-S 19'],
  ['German goods in the summer of 2020', GERMAN, 'goods standard consumer', 'DE', 'DE', '2020-12-31', 'DE-S 16'],
  ['German books', GERMAN, 'goods reduced consumer', 'DE', 'DE', TODAY, 'DE-R 7'],
  [
    'German goods to a verified Irish business',
    GERMAN,
    'goods standard business verified',
    'DE',
    'IE',
    TODAY,
    'DE-IC 0',
  ],
  ['French restaurant', FRENCH, 'service intermediate consumer', 'FR', 'FR', TODAY, 'FR-R10 10'],
  ['French book', FRENCH, 'goods reduced consumer', 'FR', 'FR', TODAY, 'FR-R 5.5'],
  ['Dutch reduced rate before 2019', DUTCH, 'goods reduced consumer', 'NL', 'NL', '2018-12-31', 'NL-R 6'],
  ['Dutch reduced rate from 2019', DUTCH, 'goods reduced consumer', 'NL', 'NL', '2019-01-01', 'NL-R 9'],
  ['Spanish super-reduced', SPANISH, 'goods super-reduced consumer', 'ES', 'ES', TODAY, 'ES-R2 4'],
  ['Italian second reduced', ITALIAN, 'goods second-reduced consumer', 'IT', 'IT', TODAY, 'IT-R2 5'],
  [
    'Italian service to a verified Irish business',
    ITALIAN,
    'service standard business verified',
    'IT',
    'IE',
    TODAY,
    'IT-RC 0',
  ],
  ['British goods at home', BRITISH, 'goods standard consumer', 'GB', 'GB', TODAY, 'GB-S 20'],
  ['British goods to Ireland', BRITISH, 'goods standard business verified', 'GB', 'IE', TODAY, 'GB-EX 0'],
  ['British fuel at the reduced rate', BRITISH, 'goods reduced consumer', 'GB', 'GB', TODAY, 'GB-R 5'],
  ['Norwegian food', NORWEGIAN, 'goods food consumer', 'NO', 'NO', TODAY, 'NO-R 15'],
  ['Swiss goods in 2023', SWISS, 'goods standard consumer', 'CH', 'CH', '2023-12-31', 'CH-S 7.7'],
  ['Swiss goods from 2024', SWISS, 'goods standard consumer', 'CH', 'CH', '2024-01-01', 'CH-S 8.1'],
  ['Swiss export', SWISS, 'goods standard business', 'CH', 'DE', TODAY, 'CH-EX 0'],
  ['Seattle by its city', WASHINGTON, 'goods standard consumer', 'US WA', 'US WA - Seattle', TODAY, 'WA-SEATTLE 10.55'],
  [
    'Seattle by its postal code',
    WASHINGTON,
    'goods standard business',
    'US WA',
    'US WA 98195-0001',
    TODAY,
    'WA-SEATTLE 10.55',
  ],
  [
    'Orcas Island by its postal code',
    WASHINGTON,
    'goods standard business',
    'US WA',
    'US WA 98245 Eastsound',
    TODAY,
    'WA-SANJUAN 8.3',
  ],
  ['food in Tacoma', WASHINGTON, 'goods food consumer', 'US WA', 'US WA 98402 Tacoma', TODAY, 'WA-TACOMA 0'],
  [
    'a Washington town in no place',
    WASHINGTON,
    'goods standard consumer',
    'US WA',
    'US WA 99362 Walla',
    TODAY,
    'No place covers the address Walla WA 99362 US',
  ],
  [
    'from Washington to Oregon',
    WASHINGTON,
    'goods standard consumer',
    'US WA',
    'US OR 97201 Portland',
    TODAY,
    'No row of the decision table catches this',
  ],
  // Directive 2006/112/EC art. 59c: below 10,000 EUR a year goods and digital services to consumers are taxed at home.
  [
    'goods to a French consumer below the threshold',
    SMALL_IRISH,
    'goods standard consumer',
    'IE',
    'FR',
    TODAY,
    'IE-S 23',
  ],
  [
    'digital to a French consumer below the threshold',
    SMALL_IRISH,
    'digital standard consumer',
    'IE',
    'FR',
    TODAY,
    'IE-S 23',
  ],
  [
    'goods to a French business all the same',
    SMALL_IRISH,
    'goods standard business verified',
    'IE',
    'FR',
    TODAY,
    'IE-IC 0',
  ],
  ['goods to Norway all the same', SMALL_IRISH, 'goods standard consumer', 'IE', 'NO', TODAY, 'IE-EX 0'],
  ['Ontario: harmonised', CANADIAN, 'goods standard consumer', 'CA ON', 'CA ON', TODAY, 'CA-ON 13'],
  ['Nova Scotia before April 2025', CANADIAN, 'goods standard consumer', 'CA ON', 'CA NS', '2025-03-31', 'CA-NS 15'],
  ['Nova Scotia from April 2025', CANADIAN, 'goods standard consumer', 'CA ON', 'CA NS', '2025-04-01', 'CA-NS 14'],
  ['Alberta: federal alone', CANADIAN, 'goods standard consumer', 'CA ON', 'CA AB', TODAY, 'CA-AB 5'],
  [
    'Quebec without a registration there: federal alone',
    CANADIAN,
    'service standard business',
    'CA ON',
    'CA QC',
    TODAY,
    'CA-QC 5',
  ],
  [
    'Quebec: federal and provincial',
    CANADIAN_WIDER,
    'service standard business',
    'CA ON',
    'CA QC',
    TODAY,
    'CA-QC 14.975',
  ],
  [
    'British Columbia: federal and provincial',
    CANADIAN_WIDER,
    'goods standard consumer',
    'CA ON',
    'CA BC',
    TODAY,
    'CA-BC 12',
  ],
  ['Canadian zero-rated', CANADIAN, 'goods zero consumer', 'CA ON', 'CA BC', TODAY, 'CA-Z 0'],
  ['Canadian export', CANADIAN, 'goods standard business', 'CA ON', 'US WA', TODAY, 'CA-EX 0'],
  ['Australian goods', AUSTRALIAN, 'goods standard consumer', 'AU', 'AU', TODAY, 'AU-S 10'],
  ['New Zealand goods', NEW_ZEALAND, 'goods standard consumer', 'NZ', 'NZ', TODAY, 'NZ-S 15'],
  ['Singapore in 2023', SINGAPORE, 'goods standard consumer', 'SG', 'SG', '2023-06-30', 'SG-S 8'],
  ['Singapore export', SINGAPORE, 'goods standard business', 'SG', 'AU', TODAY, 'SG-EX 0'],
  [
    'inside Karnataka: central and state tax',
    KARNATAKA,
    'goods standard business',
    'IN KA',
    'IN KA',
    TODAY,
    'IN-KA 18',
  ],
  [
    'from Karnataka to Kerala: integrated tax',
    KARNATAKA,
    'goods standard business',
    'IN KA',
    'IN KL',
    TODAY,
    'IN-I-STANDARD 18',
  ],
  ['the merit rate between states', KARNATAKA, 'service merit consumer', 'IN KA', 'IN DL', TODAY, 'IN-I-MERIT 5'],
  ['from Karnataka to Kenya', KARNATAKA, 'goods standard business', 'IN KA', 'KE', TODAY, 'IN-EX 0'],
  ['Kenyan goods during the cut of 2020', KENYAN, 'goods standard consumer', 'KE', 'KE', '2020-12-31', 'KE-S 14'],
  ['Kenyan goods', KENYAN, 'goods standard government', 'KE', 'KE', TODAY, 'KE-S 16'],
  ['South African goods', SOUTH_AFRICAN, 'goods standard consumer', 'ZA', 'ZA', '2018-03-31', 'ZA-S 14'],
  ['three registrations: at home in Ireland', THREE, 'goods standard consumer', 'IE', 'IE', TODAY, 'IE-S 23 IE'],
  [
    'three registrations: Seattle is Washington’s',
    THREE,
    'goods standard consumer',
    'IE',
    SEATTLE,
    TODAY,
    'WA-SEATTLE 10.55 US-WA',
  ],
  [
    'three registrations: Oregon is an Irish export',
    THREE,
    'goods standard consumer',
    'IE',
    'US OR',
    TODAY,
    'IE-EX 0 IE',
  ],
  [
    'three registrations: a German consumer is Germany’s',
    THREE,
    'goods standard consumer',
    'IE',
    'DE',
    TODAY,
    'DE 19 DE',
  ],
  [
    'three registrations: from the German warehouse',
    THREE,
    'goods standard business verified',
    'DE',
    'DE',
    TODAY,
    'DE-S 19 DE',
  ],
];

describe('which tax applies', () => {
  test.each(CASES)('%s', (_, setup, words, from, to, day, out) => {
    expect(answer(setup, supplyOf(words, from, to, day)).slice(0, out.length)).toBe(out);
  });
  test('there are at least sixty cases', () => expect(CASES.length).toBeGreaterThanOrEqual(60));
});

describe('relief', () => {
  const seattle = (relief: Readonly<Record<string, Relief>>) =>
    resolveTax(WASHINGTON, '@WA-SEATTLE/standard', isoDate(TODAY), (id) => relief[id] ?? null, 'en') as ResolvedTax;
  const certificate = { certificate: 'C-1', reason: 'research' };
  test('a certificate of the state covers all that lies in it', () => {
    const tax = seattle({ 'US-WA': certificate });
    expect([tax.category, tax.percent, tax.components.map((c) => c.insteadOf)]).toEqual([
      'E',
      '0',
      ['6.5', '1.7', '0.95', '1.4'],
    ]);
    expect(tax.legend).toContain('Exempt in Washington, certificate C-1: research.');
  });
  test('a certificate of a county covers the county and its city, the rest is charged', () => {
    const tax = seattle({ 'US-WA-KING': certificate });
    expect([tax.category, tax.percent]).toEqual(['S', '7.9']);
    expect(tax.components.map((c) => c.percent)).toEqual(['6.5', '0', '0', '1.4']);
  });
  test('a customer who is not liable is charged nothing and the document says so', () => {
    const tax = seattle({ 'US-WA': { certificate: '', reason: 'federal agency' } });
    expect(tax.legend).toContain('Not liable in Washington: federal agency.');
  });
  test('holds for a code as for a stack', () => {
    const tax = resolveTax(IRISH, 'IE-S', isoDate(TODAY), () => certificate, 'en') as ResolvedTax;
    expect([tax.category, tax.percent, tax.name]).toEqual(['E', '0', 'Standard 0']);
  });
  test('a legend comes in the customer’s language', () => {
    const tax = resolveTax(IRISH, 'IE-RC', isoDate(TODAY), NO_RELIEF, 'de') as ResolvedTax;
    expect(tax.legend).toBe('Steuerschuldnerschaft des Leistungsempfängers.');
  });
});

const SUPPLIES: fc.Arbitrary<Supply> = fc
  .record({
    supply: fc.constantFrom(...SUPPLY_KINDS),
    taxClass: fc.constantFrom('standard', 'reduced', 'zero', 'exempt', 'strange'),
    customer: fc.constantFrom(...CUSTOMER_KINDS),
    number: fc.constantFrom(...NUMBER_STATES),
    from: fc.constantFrom('IE', 'DE', 'US WA', 'CN'),
    to: fc.constantFrom('IE', 'DE', 'FR', 'NO', SEATTLE, 'US OR', 'KE'),
    day: fc.constantFrom('2020-12-31', '2021-03-01', TODAY),
  })
  .map(({ supply, taxClass, customer, number, from, to, day }) =>
    supplyOf(`${supply} ${taxClass} ${customer} ${number}`, from, to, day),
  );

const some = <T>(values: readonly T[]) => fc.subarray([...values]);
const ROWS: fc.Arbitrary<DecisionRow> = fc.record({
  id: fc.uuid(),
  name: fc.constant('Row'),
  registeredIn: some(['IE', 'US-WA', 'DE']),
  supply: some(SUPPLY_KINDS),
  taxClass: some(['standard', 'reduced']),
  customer: some(CUSTOMER_KINDS),
  number: some(NUMBER_STATES),
  shipFrom: some(RELATIONS),
  shipTo: some(RELATIONS),
  from: fc.constantFrom('' as const, isoDate('2021-01-01')),
  until: fc.constant('' as const),
  result: fc.constantFrom({ kind: 'code', code: 'IE-S' } as const, { kind: 'stack' } as const),
  source: fc.constant(''),
});

describe('properties', () => {
  const records = recordsOf(
    ['IE', 'EU', 'US-WA', 'DE'],
    ['IE', 'US-WA', 'DE'].map((id) => registeredIn(id)),
  );
  const home = { country: 'IE', region: '', postalCode: '', city: '' };

  test('a row that is found unreachable changes nothing', () => {
    fc.assert(
      fc.property(fc.array(ROWS, { maxLength: 6 }), SUPPLIES, (rows, supply) => {
        const setup = prepareSetup({ ...records, rows });
        const { unreachable } = tableFaults(setup, home);
        const less = prepareSetup({ ...records, rows: rows.filter((row) => !unreachable.includes(row.id)) });
        // Only that the table is empty now may be said in other words.
        const plain = ({ problem, ...verdict }: Verdict) => ({ ...verdict, isDecided: problem === '' });
        expect(plain(determine(less, supply))).toEqual(plain(determine(setup, supply)));
      }),
      { numRuns: 300 },
    );
  });
  test('a copy of a row at the end of the table is unreachable, and so changes nothing', () => {
    fc.assert(
      fc.property(fc.array(ROWS, { minLength: 1, maxLength: 5 }), SUPPLIES, (rows, supply) => {
        const setup = prepareSetup({ ...records, rows });
        const copy = { ...(rows[0] as DecisionRow), id: 'copy' };
        const more = prepareSetup({ ...records, rows: [...rows, copy] });
        expect(determine(more, supply)).toEqual(determine(setup, supply));
        expect(tableFaults(more, home).unreachable).toContain('copy');
      }),
    );
  });
  test('a case that no row catches from home is among the gaps, and where there are none all are caught', () => {
    fc.assert(
      fc.property(fc.array(ROWS, { maxLength: 6 }), SUPPLIES, (rows, supply) => {
        const setup = prepareSetup({ ...records, rows });
        const fromHome = { ...supply, shipFrom: home, day: isoDate(TODAY) };
        const caught = determine(setup, fromHome).rowId !== '';
        if (tableFaults(setup, home).gaps.length === 0) expect(caught).toBe(true);
      }),
      { numRuns: 300 },
    );
  });
  test('the trail explains the result: it ends with it, and every row before the deciding one is named', () => {
    fc.assert(
      fc.property(SUPPLIES, (supply) => {
        const setup = prepareSetup(records);
        const verdict = determine(setup, supply);
        const trail = explainDecision(setup, supply);
        expect(trail.at(-1)?.held).toBe(verdict.problem === '');
        if (verdict.problem !== '') expect(trail.at(-1)?.text).toBe(verdict.problem);
        const at = setup.rows.findIndex((row) => row.id === verdict.rowId);
        const before = at < 0 ? setup.rows : setup.rows.slice(0, at);
        const named = trail.filter((reason) => !reason.held && reason.text.startsWith('not “')).length;
        expect(named).toBe(before.length);
        if (at >= 0) expect(trail[named]?.text).toBe(`row “${setup.rows[at]?.name}” applies`);
      }),
    );
  });
  test('answers that are remembered are the same', () => {
    const setup = prepareSetup(records);
    const decide = determiner(setup);
    fc.assert(fc.property(SUPPLIES, (supply) => expect(decide(supply)).toEqual(determine(setup, supply))));
  });
  test('the taxes of a stack add up to the combined tax, to the cent and in percent', () => {
    const places = ['WA-SEATTLE', 'WA-TACOMA', 'WA-SANJUAN', 'WA-BELLINGHAM', 'WA-PORTTOWNSEND'];
    fc.assert(
      fc.property(fc.constantFrom(...places), fc.integer({ min: 1, max: 10_000_000 }), (place, cents) => {
        const tax = resolveTax(WASHINGTON, `@${place}/standard`, isoDate(TODAY), NO_RELIEF, 'en') as ResolvedTax;
        const price = decimal(`${Math.floor(cents / 100)}.${String(cents % 100).padStart(2, '0')}`);
        const compute = (components: { id: string; family: string; rate: ReturnType<typeof decimal> }[]) =>
          calculate({
            currency: currency('USD'),
            priceMode: 'net',
            rounding: { mode: 'half-up', level: 'document' },
            taxes: { T: { category: 'S', components } },
            lines: [{ id: '1', quantity: decimal('1'), unitPrice: price, tax: 'T' }],
            adjustments: [],
            overrides: [],
            withholding: [],
          });
        const split = compute(tax.components.map((c) => ({ id: c.taxId, family: c.family, rate: decimal(c.percent) })));
        const one = compute([{ id: 'all', family: 'all', rate: tax.percent }]);
        expect(total((split.groups[0]?.components ?? []).map((c) => c.amount))).toBe(one.totals.taxAmount);
        const sum = tax.components.reduce((all, c) => add(all, ratioOf(decimal(c.percent))), ZERO);
        expect(compare(sum, ratioOf(tax.percent))).toBe(0);
      }),
    );
  });
});
