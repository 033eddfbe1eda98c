import fc from 'fast-check';
import { decimal } from '@/core/kernel/decimal';
import { minor } from '@/core/kernel/money';
import type { CalcInput, CalcResult } from './calcTypes';
import { calculate } from './calculate';
import { readCalcInput } from './readCalcInput';
import workedExamples from './workedExamples.json';
import { writeCalcResult } from './writeCalcResult';

function read(data: unknown): CalcInput {
  const result = readCalcInput(data);
  if (!result.ok) throw new Error(JSON.stringify(result.refusals));
  return result.value;
}

describe('worked examples, to the cent', () => {
  test.each(workedExamples.map((example) => [example.name, example] as const))('%s', (_, { input, expected }) => {
    expect(writeCalcResult(calculate(read(input)))).toEqual(expected);
  });
});

const simple = (over: object) =>
  read({
    currency: 'EUR',
    priceMode: 'net',
    rounding: { mode: 'half-up', level: 'document' },
    taxes: { S: { category: 'S', components: [{ id: 'vat', rate: '23' }] } },
    lines: [{ id: '1', quantity: '1', unitPrice: '100', tax: 'S' }],
    ...over,
  });

describe('stages by hand', () => {
  test('a price base quantity divides before the rounding: 7 at 9.99 for 100 is 0.70', () => {
    const { lines } = calculate(
      simple({ lines: [{ id: '1', quantity: '7', unitPrice: '9.99', baseQuantity: '100', tax: 'S' }] }),
    );
    expect(lines[0]?.extension).toBe(70n);
  });
  test('a percentage looks at line values, not at other adjustments', () => {
    const { totals } = calculate(
      simple({
        adjustments: [
          { id: 'a', kind: 'charge', amount: '50.00', tax: 'S' },
          { id: 'b', kind: 'allowance', percent: '10' },
        ],
      }),
    );
    expect(totals).toMatchObject({ charges: 5000n, allowances: 1000n, net: 14000n, taxAmount: 3220n });
  });
  test('a code that only an adjustment uses comes last', () => {
    const { groups } = calculate(
      simple({
        taxes: {
          Z: { category: 'Z', components: [] },
          S: { category: 'S', components: [{ id: 'vat', rate: '23' }] },
        },
        adjustments: [{ id: 'f', kind: 'charge', amount: '5.00', tax: 'Z' }],
      }),
    );
    expect(groups.map((g) => [g.tax, g.gross])).toEqual([
      ['S', 12300n],
      ['Z', 500n],
    ]);
  });
  test('the coin rounds half half up, for what is due and for what is owed back', () => {
    const rounding = { mode: 'half-even', level: 'document', cashStep: '0.10' };
    const due = (quantity: string) =>
      calculate(simple({ rounding, priceMode: 'gross', lines: [{ id: '1', quantity, unitPrice: '9.95', tax: 'S' }] }))
        .totals;
    expect(due('1')).toMatchObject({ rounding: 5n, payable: 1000n });
    expect(due('-1')).toMatchObject({ rounding: -5n, payable: -1000n });
  });
  test('by line, a charge pays its own rounded tax and no tax per unit', () => {
    const { groups } = calculate(
      simple({
        rounding: { mode: 'half-up', level: 'line' },
        taxes: {
          S: {
            category: 'S',
            components: [
              { id: 'vat', rate: '23' },
              { id: 'bag', perUnit: '0.22' },
            ],
          },
        },
        lines: [{ id: '1', quantity: '2', unitPrice: '0.11', tax: 'S' }],
        adjustments: [{ id: 'c', kind: 'charge', amount: '0.11', tax: 'S' }],
      }),
    );
    // 23 % of 0.22 is 0.0506 → 0.05; of 0.11 is 0.0253 → 0.03; two bags are 0.44.
    expect(groups[0]?.components.map((c) => c.amount)).toEqual([8n, 44n]);
  });
  test('home figures: gross and taxes are converted, net is what is left', () => {
    const { home } = calculate(simple({ currency: 'JPY', home: { currency: 'EUR', rate: '0.0061' } }));
    expect(home).toMatchObject({ gross: 75n, taxAmount: 14n, net: 61n, lineNets: [61n] });
  });
});

/** Documents of every kind the engine takes. */
const documents: fc.Arbitrary<CalcInput> = (() => {
  const units = (max: number, decimals: number) =>
    fc.integer({ min: 0, max }).map((n) => (n / 10 ** decimals).toFixed(decimals));
  const component = fc.record({ rate: units(3000, 2), compound: fc.boolean(), family: fc.constantFrom('a', 'b', 'c') });
  const perUnit = units(500, 3).map((amount) => ({ perUnit: amount }));
  const code = fc.array(fc.oneof({ weight: 4, arbitrary: component }, { weight: 1, arbitrary: perUnit }), {
    maxLength: 4,
  });
  const line = fc.record({
    quantity: fc.tuple(fc.boolean(), units(5000, 2)).map(([minus, q]) => (minus ? `-${q}` : q)),
    unitPrice: units(1_000_000, 3),
    tax: fc.constantFrom('A', 'B'),
    discount: fc.option(
      fc.oneof(
        units(10000, 2).map((percent) => ({ percent })),
        units(999, 0).map((amount) => ({ amount })),
      ),
      { nil: undefined },
    ),
  });
  const adjustment = fc.record({
    kind: fc.constantFrom('allowance', 'charge'),
    amount: units(500, 0),
    tax: fc.constantFrom('A', 'B', undefined),
  });
  return fc
    .record({
      currency: fc.constantFrom('EUR', 'JPY', 'KWD'),
      priceMode: fc.constantFrom('net', 'gross'),
      mode: fc.constantFrom('half-up', 'half-even'),
      level: fc.constantFrom('document', 'line'),
      codes: fc.tuple(code, code),
      lines: fc.array(line, { minLength: 1, maxLength: 12 }),
      adjustments: fc.array(adjustment, { maxLength: 3 }),
    })
    .map(({ currency, priceMode, mode, level, codes, lines, adjustments }) => {
      const taxes = codes.map((components) => ({
        category: 'S',
        components: components.map((c, i) => ({ id: `c${i}`, ...c })),
      }));
      return read(
        JSON.parse(
          JSON.stringify({
            currency,
            priceMode,
            rounding: { mode, level },
            taxes: { A: taxes[0], B: taxes[1] },
            lines: lines.map((l, i) => ({ id: String(i), ...l })),
            adjustments: adjustments.map((a, i) => ({ id: `a${i}`, ...a })),
            home: { currency: 'EUR', rate: '0.9213' },
          }),
        ),
      );
    });
})();

const negate = (text: string) => decimal(text.startsWith('-') ? text.slice(1) : `-${text}`);

/** The document that takes another back: quantities and fixed amounts turned round. */
function mirrorOf(input: CalcInput): CalcInput {
  return {
    ...input,
    lines: input.lines.map((line) => ({
      ...line,
      quantity: negate(line.quantity),
      ...(line.discount && 'amount' in line.discount && { discount: { amount: negate(line.discount.amount) } }),
    })),
    adjustments: input.adjustments.map((a) => ({ ...a, ...(a.amount && { amount: negate(a.amount) }) })),
  };
}

const turned = (value: unknown): unknown =>
  typeof value === 'bigint'
    ? -value
    : Array.isArray(value)
      ? value.map(turned)
      : value !== null && typeof value === 'object'
        ? Object.fromEntries(Object.entries(value).map(([key, v]) => [key, turned(v)]))
        : value;

describe('for any document', () => {
  const sum = (amounts: readonly bigint[]) => amounts.reduce((a, b) => a + b, 0n);

  test('lines and adjustments add up to their group, components to its tax, groups to the totals', () => {
    fc.assert(
      fc.property(documents, (input) => {
        const result: CalcResult = calculate(input);
        for (const group of result.groups) {
          const members = [...result.lines, ...result.adjustments].filter((m) => m.tax === group.tax);
          expect(sum(members.map((m) => m.taxAmount))).toBe(group.taxAmount);
          expect(sum(members.map((m) => m.net))).toBe(group.net);
          expect(sum(members.map((m) => m.gross))).toBe(group.gross);
          expect(sum(group.components.map((c) => c.amount))).toBe(group.taxAmount);
        }
        expect(result.totals.net + result.totals.taxAmount).toBe(result.totals.gross);
        expect(sum(result.groups.map((g) => g.gross))).toBe(result.totals.gross);
        const { home } = result;
        expect((home?.net ?? 0n) + (home?.taxAmount ?? 0n)).toBe(home?.gross);
        expect(sum([...(home?.lineNets ?? []), ...(home?.adjustmentNets ?? [])])).toBe(home?.net);
      }),
    );
  });

  test('a credit note mirrors its invoice to the cent', () => {
    fc.assert(
      fc.property(documents, (input) => {
        expect(calculate(mirrorOf(input))).toEqual(turned(calculate(input)));
      }),
    );
  });

  test('with the tax inside, what the customer pays is what was typed', () => {
    fc.assert(
      fc.property(documents, (input) => {
        const result = calculate({ ...input, priceMode: 'gross' });
        for (const line of result.lines) expect(line.gross).toBe(line.value);
      }),
    );
  });

  test('an override replaces the tax and is split whole', () => {
    fc.assert(
      fc.property(documents, fc.bigInt(0n, 99999n), (input, amount) => {
        const code = input.lines[0]?.tax ?? 'A';
        const family = input.taxes[code]?.components.map((c) => c.family ?? c.id)[0];
        fc.pre(family !== undefined && input.currency === 'JPY');
        const result = calculate({
          ...input,
          overrides: [{ tax: code, family: family ?? '', amount: decimal(String(amount)), reason: 'agreed' }],
        });
        const components = result.groups.find((g) => g.tax === code)?.components ?? [];
        expect(minor(sum(components.filter((c) => c.family === family).map((c) => c.amount)))).toBe(amount);
      }),
    );
  });
});
