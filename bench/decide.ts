import { currency } from '@/core/kernel/currency';
import { isoDate } from '@/core/kernel/date';
import { decimal } from '@/core/kernel/decimal';
import type { CalcInput } from '@/core/tax/calcTypes';
import { calculate } from '@/core/tax/calculate';
import { CUSTOMER_KINDS, type DecisionRow, SUPPLY_KINDS } from '@/core/tax/decisionTable';
import { determine, determiner, type Supply, type Verdict } from '@/core/tax/determine';
import type { Jurisdiction } from '@/core/tax/jurisdiction';
import type { Place, Whereabouts } from '@/core/tax/place';
import type { Registration } from '@/core/tax/registration';
import { resolveTax } from '@/core/tax/resolve';
import type { Tax } from '@/core/tax/tax';
import { prepareSetup, type TaxSetup } from '@/core/tax/taxSetup';
import { demoRegistration } from '@/demo/setup';

const DAY = isoDate('2026-11-23');
const LINES = 100_000;
const LINES_OF_A_DOCUMENT = 100;
const CLASSES = ['standard', 'food', 'parts', 'books'];

const placeId = (i: number) => `P${String(i).padStart(4, '0')}`;

/** 5,000 places with a jurisdiction and a rate each, found by postal code. */
function places(count: number): { places: Place[]; jurisdictions: Jurisdiction[]; taxes: Tax[] } {
  const state: Jurisdiction = { id: 'US-WA', name: 'Washington', kind: 'state', code: 'US-WA', parentId: 'US' };
  const tax = (id: string, percent: string): Tax => ({
    id: `${id}-T`,
    jurisdictionId: id,
    name: 'Sales tax',
    rates: [
      { taxClass: '', from: isoDate('2000-01-01'), until: '', percent: decimal(percent), perUnit: '', source: '' },
    ],
  });
  const ids = Array.from({ length: count }, (_, i) => placeId(i));
  return {
    jurisdictions: [
      { id: 'US', name: 'United States', kind: 'country', code: 'US', parentId: '' },
      state,
      ...ids.map((id): Jurisdiction => ({ id, name: id, kind: 'city', code: '', parentId: 'US-WA' })),
    ],
    taxes: [tax('US-WA', '6.5'), ...ids.map((id, i) => tax(id, `${1 + (i % 4)}.${i % 10}`))],
    places: ids.map((id, i) => {
      const code = String(10_000 + 10 * i);
      const end = String(10_009 + 10 * i);
      const match = { country: 'US', region: 'WA', postalFrom: code, postalTo: end, city: '' };
      return { id, name: id, stack: ['US-WA', id], rounding: 'together', matches: [match] };
    }),
  };
}

/** A table whose rows ask for many things that do not hold before the last one takes the stack. */
function table(count: number): DecisionRow[] {
  const row = (i: number, over: Partial<DecisionRow>): DecisionRow => ({
    id: String(i),
    name: `Row ${i}`,
    registeredIn: ['US-WA'],
    supply: [],
    taxClass: [],
    customer: [],
    number: [],
    shipFrom: [],
    shipTo: ['territory'],
    from: '',
    until: '',
    result: { kind: 'stack' },
    source: '',
    ...over,
  });
  const rows = Array.from({ length: count - 1 }, (_, i) =>
    row(i, {
      supply: [SUPPLY_KINDS[i % 3] ?? 'goods'],
      customer: [CUSTOMER_KINDS[i % 2] ?? 'business'],
      taxClass: [`rare-${i}`],
      ...(i % 5 === 0 && { taxClass: [], shipTo: ['outside'] }),
    }),
  );
  return [...rows, row(count, {})];
}

function setup(): TaxSetup {
  const registration: Registration = {
    ...demoRegistration(isoDate('2020-01-01')),
    jurisdictionId: 'US-WA',
    country: 'US',
  };
  return prepareSetup({
    registrations: [registration],
    codes: [],
    withholdingTypes: [],
    rows: table(200),
    ...places(5000),
  });
}

/** Lines of documents to customers in 1,000 different places. */
function supplies(): Supply[] {
  const home: Whereabouts = { country: 'US', region: 'WA', postalCode: '10000', city: 'Home' };
  return Array.from({ length: LINES / LINES_OF_A_DOCUMENT }, (_, d) => {
    const shipTo = { country: 'US', region: 'WA', postalCode: String(10_000 + ((d * 37) % 50_000)), city: 'Town' };
    return Array.from(
      { length: LINES_OF_A_DOCUMENT },
      (_, i): Supply => ({
        supply: SUPPLY_KINDS[i % 3] ?? 'goods',
        taxClass: CLASSES[i % 4] ?? 'standard',
        customer: CUSTOMER_KINDS[d % 3] ?? 'business',
        number: 'none',
        shipFrom: home,
        shipTo,
        day: DAY,
      }),
    );
  }).flat();
}

function documents(): CalcInput[] {
  return Array.from({ length: LINES / LINES_OF_A_DOCUMENT }, (_, d) => ({
    currency: currency('USD'),
    priceMode: 'net' as const,
    rounding: { mode: 'half-up' as const, level: 'document' as const },
    taxes: Object.fromEntries(
      CLASSES.map((name) => [
        name,
        {
          category: 'S' as const,
          components: [
            { id: 'state', family: 'p', rate: decimal('6.5') },
            { id: 'city', family: 'p', rate: decimal('2.4') },
          ],
        },
      ]),
    ),
    lines: Array.from({ length: LINES_OF_A_DOCUMENT }, (_, i) => ({
      id: String(i),
      quantity: decimal(`${1 + (i % 9)}.5`),
      unitPrice: decimal(`${10 + ((d + i) % 90)}.37`),
      tax: CLASSES[i % 4] ?? 'standard',
    })),
    adjustments: [],
    overrides: [],
    withholding: [],
  }));
}

function timed(work: () => unknown): number {
  const began = performance.now();
  work();
  return performance.now() - began;
}

const middle = (times: number[]): number => times.sort((a, b) => a - b)[Math.floor(times.length / 2)] ?? 0;

/** (d) 100,000 lines decided and their rates found, against computing the amounts of the same lines. */
export function decideAgainstCompute(): void {
  const prepared = setup();
  const all = supplies();
  const inputs = documents();
  const rates = (verdicts: readonly Verdict[]) => {
    const known = new Set(verdicts.map((verdict) => verdict.key));
    for (const key of known) resolveTax(prepared, key, DAY, () => null, 'en');
  };
  const remembered = () => rates(all.map(determiner(prepared)));
  const afresh = () => rates(all.map((supply) => determine(prepared, supply)));
  const compute = () => {
    for (const input of inputs) calculate(input);
  };
  const wrong = all.map(determiner(prepared)).filter((verdict) => verdict.problem !== '').length;
  if (wrong > 0) throw new Error(`${wrong} lines were not decided`);
  for (const warm of [compute, remembered]) timed(warm);
  const [computed, decided, each] = [compute, remembered, afresh].map((work) =>
    middle([timed(work), timed(work), timed(work)]),
  ) as [number, number, number];
  console.log(
    `(d) 100,000 lines decided by 200 rows and 5,000 places: ${decided.toFixed(0)} ms, each line afresh ${each.toFixed(0)} ms; computing their amounts ${computed.toFixed(0)} ms; ratios ${(decided / computed).toFixed(2)} and ${(each / computed).toFixed(2)}`,
  );
}
