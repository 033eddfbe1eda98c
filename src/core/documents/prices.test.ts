import fc from 'fast-check';
import { draftOf, EUR, lineOf, settingOf } from 'tests/book';
import type { Item } from '@/core/catalogue/item';
import { priceListSchema, priceOf } from '@/core/catalogue/priceList';
import { currency } from '@/core/kernel/currency';
import { decimal } from '@/core/kernel/decimal';
import { minor } from '@/core/kernel/money';
import { validated } from '@/core/kernel/validate';
import type { Component } from '@/core/tax/calcTypes';
import { calculate } from '@/core/tax/calculate';
import { priceFor, priceInMode, valueFor } from '@/core/tax/convertPrice';
import { DEMO_CUSTOMERS, DEMO_ITEMS } from '@/demo/setup';
import { takeItem } from './determineLine';
import { preview } from './preview';
import { switchMode, typeFigure, typeOtherPrice } from './switchMode';
import { takeTaxOff, zeroRatedSince } from './zeroRated';

const at = (rate: string): Component[] => [{ id: 'T', rate: decimal(rate) }];
const setting = settingOf();
const counter = DEMO_CUSTOMERS.find((c) => c.id === 'counter') ?? null;

describe('a price in the other mode', () => {
  test.each([
    ['62.00', 'net', 'gross', '13.5', '70.37'],
    ['70.37', 'gross', 'net', '13.5', '62'],
    ['40.00', 'gross', 'net', '9', '36.6972477064'],
    ['18.45', 'net', 'gross', '23', '22.69'],
    ['10', 'net', 'net', '23', '10'],
  ] as const)('%s from %s to %s at %s %% is %s', (price, from, to, rate, out) => {
    expect(priceInMode(decimal(price), from, to, at(rate), EUR)).toBe(out);
  });
  test('knows taxes per unit and compound ones', () => {
    const deposit: Component[] = [
      { id: 'D', perUnit: decimal('0.25') },
      { id: 'V', rate: decimal('20'), compound: true },
    ];
    expect(priceInMode(decimal('10'), 'net', 'gross', deposit, EUR)).toBe('12.30');
    expect(priceInMode(decimal('12.30'), 'gross', 'net', deposit, EUR)).toBe('10');
  });
  test('in a currency without minor units', () => {
    expect(priceInMode(decimal('1000'), 'net', 'gross', at('10'), currency('JPY'))).toBe('1100');
  });
});

describe('the unit price behind a value', () => {
  test.each([
    ['100.00 for 3', 10000n, '3', undefined, '33.3333333333'],
    ['53.97 for 3 less 10 %', 5397n, '3', { percent: decimal('10') }, '19.99'],
    ['90.00 for 1 less 10.00', 9000n, '1', { amount: decimal('10') }, '100'],
    ['nothing is sold', 100n, '0', undefined, null],
    ['all is discounted', 100n, '1', { percent: decimal('100') }, null],
  ] as const)('%s', (_, value, quantity, discount, price) => {
    expect(priceFor(value, decimal(quantity), discount, EUR)).toBe(price);
  });
  test('a tax of 0.01 at 250 % has none', () => {
    expect(valueFor('tax', minor(1n), 'net', decimal('1'), at('250'), EUR)).toBeNull();
  });
  test('for any typed total in either mode the line comes to exactly that, or is refused', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('net' as const, 'tax' as const, 'gross' as const),
        fc.bigInt({ min: 1n, max: 9_999_999n }),
        fc.constantFrom('net' as const, 'gross' as const),
        fc.integer({ min: 1, max: 40 }),
        fc.constantFrom('23', '13.5', '9', '21', '5.5', '10.35'),
        (figure, amount, priceMode, count, rate) => {
          const quantity = decimal(String(count));
          const value = valueFor(figure, minor(amount), priceMode, quantity, at(rate), EUR);
          if (value === null) return;
          const price = priceFor(value, quantity, undefined, EUR);
          if (price === null) return;
          const result = calculate({
            currency: EUR,
            priceMode,
            rounding: { mode: 'half-up', level: 'document' },
            taxes: { T: { category: 'S', components: at(rate) } },
            lines: [{ id: '1', quantity, unitPrice: price, tax: 'T' }],
            adjustments: [],
            overrides: [],
            withholding: [],
          }).totals;
          expect({ net: result.net, tax: result.taxAmount, gross: result.gross }[figure]).toBe(amount);
        },
      ),
    );
  });
});

describe('switching a document between prices with tax and without', () => {
  const lines = [
    lineOf({ price: '19.99', quantity: '3', discount: '10%' }),
    lineOf({ price: '7.10', taxCode: 'IE-R', taxClass: 'reduced' }),
  ];
  const shown = (over: Parameters<typeof draftOf>[0]) => {
    const draft = draftOf(over);
    return { draft, shown: preview(draft, counter, setting) };
  };
  test('keeping the prices moves the total: 62.03 without tax is 74.44 with it added', () => {
    const before = shown({ lines });
    const { draft } = switchMode(before.draft, before.shown, 'gross', 'prices');
    expect(draft.lines.map((line) => line.price)).toEqual(['19.99', '7.10']);
    expect(preview(draft, counter, setting).figures.totals.gross).toBe(6107n);
    expect(before.shown.figures.totals.gross).toBe(7444n);
  });
  test('keeping the total moves the prices, and says where they come from', () => {
    const before = shown({ lines });
    const { draft, moved } = switchMode(before.draft, before.shown, 'gross', 'total');
    expect(moved).toBe(0n);
    expect(preview(draft, counter, setting).figures.totals.gross).toBe(7444n);
    expect(draft.lines[0]?.priceFrom).toBe('19.99 without tax; the line keeps 66.38 with tax');
  });
  test('there and back, for any lines, what the customer pays stays or the difference is named', () => {
    const line = fc.record({
      price: fc
        .integer({ min: 1, max: 200_000 })
        .map((c) => `${Math.floor(c / 100)}.${String(c % 100).padStart(2, '0')}`),
      quantity: fc.integer({ min: 1, max: 20 }).map(String),
      taxCode: fc.constantFrom('IE-S', 'IE-R', 'IE-R2', 'IE-Z'),
    });
    fc.assert(
      fc.property(
        fc.array(line, { minLength: 1, maxLength: 6 }),
        fc.constantFrom('net' as const, 'gross' as const),
        (all, priceMode) => {
          const before = shown({ priceMode, lines: all.map((over) => lineOf(over)) });
          const to = priceMode === 'net' ? 'gross' : 'net';
          const { draft, moved } = switchMode(before.draft, before.shown, to, 'total');
          const after = preview(draft, counter, setting).figures.totals.gross;
          expect(after - before.shown.figures.totals.gross).toBe(moved);
          if (to === 'gross') expect(moved).toBe(0n);
        },
      ),
    );
  });
  test('a typed figure of a line gives its price', () => {
    const { draft, shown: figures } = shown({ lines });
    const line = draft.lines[0];
    if (line === undefined) throw new Error('no line');
    expect(typeFigure(line, 'gross', minor(10_000n), figures)?.priceFrom).toBe(
      'from the typed total with tax of 100.00',
    );
    expect(typeFigure({ ...line, id: 'nobody' }, 'gross', minor(1n), figures)).toBeNull();
  });
});

describe('a line of a tax-inclusive document that charges no tax any more', () => {
  const shownOf = (priceMode: 'net' | 'gross', taxCode: string, price = '123.00') => {
    const draft = draftOf({
      priceMode,
      lines: [lineOf({ id: 'a', price, taxCode }), lineOf({ id: 'b', taxCode: 'IE-Z' })],
    });
    return { draft, shown: preview(draft, counter, setting) };
  };
  test('is asked about, and its tax taken off: 123.00 with 23 % is 100.00 without', () => {
    const [before, after] = [shownOf('gross', 'IE-S'), shownOf('gross', 'IE-Z')];
    expect(zeroRatedSince(before.shown, after.shown)).toEqual(['a']);
    const { lines } = takeTaxOff(after.draft, before.shown, ['a']);
    expect(lines.map(({ price }) => Number(price))).toEqual([100, Number(after.draft.lines[1]?.price)]);
  });
  test('is not asked about where its price was typed anew, where tax is charged, or where prices exclude tax', () => {
    const before = shownOf('gross', 'IE-S').shown;
    for (const after of [shownOf('gross', 'IE-Z', '50'), shownOf('gross', 'IE-R'), shownOf('net', 'IE-Z')])
      expect(zeroRatedSince(before, after.shown)).toEqual([]);
  });
});

test('a unit price typed in the other mode: 123.00 with 23 % is 100.00 without', () => {
  const draft = draftOf({ lines: [lineOf({ id: 'a', price: '1' })] });
  const line = draft.lines[0];
  if (line === undefined) throw new Error('no line');
  const typed = typeOtherPrice(line, decimal('123.00'), preview(draft, counter, setting));
  expect([typed?.price, typed?.priceFrom]).toEqual(['100', 'from the typed price of 123.00 with tax']);
});

describe('price lists', () => {
  const gauge = DEMO_ITEMS.find((i) => i.id === 'gauge') as Item;
  const list = {
    id: 'l',
    name: 'Marinas',
    priceMode: 'gross' as const,
    prices: [{ itemId: 'gauge', price: decimal('1230') }],
  };
  test('go before the item’s own price, for the items they hold', () => {
    expect(priceOf(gauge, list)).toEqual({ price: '1230', mode: 'gross' });
    expect(priceOf({ ...gauge, id: 'other' }, list)).toEqual({ price: '940.00', mode: 'net' });
    expect(priceOf(gauge, null)).toEqual({ price: '940.00', mode: 'net' });
  });
  test('are turned into the mode of the document, and Workings says how', () => {
    const taken = takeItem(lineOf(), gauge, list, draftOf(), counter, setting);
    expect(taken.price).toBe('1000');
    expect(taken.priceFrom).toBe('1,230.00 with tax from “Marinas”, at 23 % 1,000.00 without tax');
  });
  test('do not hold an item twice', () => {
    const twice = { ...list, prices: [...list.prices, ...list.prices] };
    const result = validated(priceListSchema, twice);
    expect(result.ok ? [] : result.refusals.map((r) => r.path)).toEqual(['prices[1].itemId']);
  });
});
