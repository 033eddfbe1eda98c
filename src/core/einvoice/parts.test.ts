import fc from 'fast-check';
import { addIn, baseInvoice, elementsOf, readBack, set, setIn } from 'tests/einvoice';
import { ratioOf } from '@/core/kernel/decimal';
import { group, groupsOf, schemeOf, termsOf, textOf } from './model';
import {
  absolute,
  hundredths,
  numberOf,
  numberOrNothing,
  product,
  scaled,
  show,
  sumOf,
  toCents,
  unit,
} from './numbers';
import { writeEInvoice } from './syntax';
import { GROUPS, groupName, TERMS, termName } from './terms';
import { groupsIn, valueIn, viewOf } from './view';
import { childOf, descend, pathOf } from './xml/node';
import { readXml } from './xml/readXml';

describe('numbers of a file', () => {
  test.each<[string, string]>([
    ['1', '1.00'],
    ['+1.5', '1.50'],
    ['.5', '0.50'],
    ['5.', '5.00'],
    ['-0.125', '−0.125'],
    ['-.5', '−0.50'],
    ['000123.450', '123.45'],
    ['999999999999999999999999', '999999999999999999999999.00'],
  ])('%s is read as %s', (text, shown) => {
    const number = scaled(text);
    expect(number === null ? null : show(number)).toBe(shown);
  });
  test.each([
    '',
    ' ',
    '1,5',
    '1e3',
    'NaN',
    'INF',
    '0x10',
    '1.2.3',
    '--1',
    '1 000',
    '٣',
    '9'.repeat(25),
    `0.${'1'.repeat(19)}`,
  ])('“%s” is none', (text) => expect(scaled(text)).toBeNull());
  test('are kept exactly, whatever their sign and decimals', () => {
    const decimals = fc.tuple(fc.bigInt({ min: -(10n ** 20n), max: 10n ** 20n }), fc.integer({ min: 0, max: 18 }));
    fc.assert(
      fc.property(decimals, ([units, places]) => {
        const digits = absolute(units)
          .toString()
          .padStart(places + 1, '0');
        const whole = places === 0 ? digits : `${digits.slice(0, -places)}.${digits.slice(-places)}`;
        const text = `${units < 0n ? '-' : ''}${whole}`;
        const { n, d } = ratioOf(text as never);
        expect((scaled(text) ?? 0n) * d).toBe(n * unit);
      }),
    );
  });
  test.each([
    ['1.005', '1.01'],
    ['1.0049', '1.00'],
    ['-1.005', '−1.01'],
    ['0', '0.00'],
  ])('%s is %s to two decimals, half half up', (text, shown) => expect(show(toCents(scaled(text) ?? 0n))).toBe(shown));
  test('multiply and add up; what is missing counts as nothing, what is no number spoils the sum', () => {
    expect(show(product(scaled('12.5') ?? 0n, scaled('0.3') ?? 0n))).toBe('3.75');
    expect(hundredths(3n)).toBe(scaled('0.03'));
    const some = [group('BG-25', { 'BT-131': '1.10' }), group('BG-25', {}), group('BG-25', { 'BT-131': '2' })];
    expect(sumOf(some, 'BT-131')).toBe(scaled('3.10'));
    expect(sumOf([...some, group('BG-25', { 'BT-131': 'x' })], 'BT-131')).toBeNull();
    const [first = group('BG-25', {})] = some;
    expect([numberOf(first, 'BT-136'), numberOrNothing(first, 'BT-136')]).toEqual([null, 0n]);
    expect(numberOrNothing(group('BG-25', { 'BT-131': 'x' }), 'BT-131')).toBeNull();
  });
});

describe('terms of the standard', () => {
  test('are 165 less those that the standard leaves out, each with its name', () => {
    expect(TERMS.size).toBe(164);
    expect(TERMS.has('BT-4')).toBe(false);
    expect(termName('BT-131')).toBe('Invoice line net amount (BT-131)');
    expect(groupName('BG-25')).toBe('Invoice line (BG-25)');
    expect([...TERMS.values()].every(({ name }) => name.length > 3)).toBe(true);
  });
  test('are amounts, days, codes and so on', () => {
    const kinds = (['BT-1', 'BT-2', 'BT-3', 'BT-131', 'BT-146', 'BT-129', 'BT-119', 'BT-125'] as const).map(
      (id) => TERMS.get(id)?.kind,
    );
    expect(kinds).toEqual(['text', 'date', 'code', 'amount', 'price', 'quantity', 'percent', 'binary']);
    expect([...TERMS].filter(([, { many }]) => many).map(([id]) => id)).toEqual(['BT-29', 'BT-158']);
  });
});

describe('a group', () => {
  test('leaves out what is empty, and keeps schemes and repetitions', () => {
    const made = group('BG-4', { 'BT-27': '', 'BT-29': ['a', { value: 'b', scheme: '0088' }] }, [
      null,
      group('BG-5', { 'BT-40': 'IE' }),
    ]);
    expect([textOf(made, 'BT-27'), schemeOf(made, 'BT-29')]).toEqual(['', '']);
    expect(termsOf(made, 'BT-29').map(({ value, scheme }) => [value, scheme])).toEqual([
      ['a', ''],
      ['b', '0088'],
    ]);
    expect(groupsOf(made, 'BG-5')).toHaveLength(1);
    expect(groupsOf(made, 'BG-12')).toEqual([]);
  });
});

describe('elements that were read', () => {
  const read = readXml('<a xmlns="urn:x" k="1"><b/><c>t <![CDATA[<u>]]></c><b>\n  <d/></b></a>');
  if (!read.ok) throw new Error('well-formed');
  const root = read.value;
  test('know their way, counted only among several', () => {
    expect(elementsOf(root).map(pathOf)).toEqual([
      '/{urn:x}a',
      '/{urn:x}a/{urn:x}b[1]',
      '/{urn:x}a/{urn:x}c',
      '/{urn:x}a/{urn:x}b[2]',
      '/{urn:x}a/{urn:x}b[2]/{urn:x}d',
    ]);
  });
  test('keep text, attributes and the line they stand in', () => {
    expect(childOf(root, '{urn:x}c')?.text).toBe('t <u>');
    expect(root.attributes).toEqual({ k: '1' });
    expect(descend(root, '{urn:x}b', '{urn:x}d')).toBeUndefined();
    expect(elementsOf(root).at(-1)?.line).toBe(2);
  });
  test('carry the prefixes of the standards, whatever the file calls them', () => {
    const xml = writeEInvoice(baseInvoice(), 'ubl')
      .replaceAll('cbc:', 'x:')
      .replaceAll('xmlns:cbc', 'xmlns:x')
      .replace('<Invoice xmlns=', '<i:Invoice xmlns:i=')
      .replace('</Invoice>', '</i:Invoice>');
    expect(textOf(readBack(xml).invoice, 'BT-1')).toBe('INV-1');
  });
});

describe('what a screen is given', () => {
  const noted = addIn([], group('BG-1', { 'BT-22': 'With thanks' }))(baseInvoice());
  const xml = writeEInvoice(set({ 'BT-13': 'PO-7' })(noted), 'ubl');
  const view = viewOf(readBack(xml).invoice);
  test('is plain data with the line of the file for each value', () => {
    expect(structuredClone(view)).toEqual(view);
    const lines = xml.split('\n');
    for (const term of view.terms) expect(lines[term.line - 1]).toContain(term.value);
    expect(view.terms.length).toBeGreaterThan(12);
  });
  test('has names, values and groups', () => {
    expect([valueIn(view, 'BT-13'), valueIn(view, 'BT-99'), valueIn(undefined, 'BT-1')]).toEqual(['PO-7', '', '']);
    expect(groupsIn(view, 'BG-25').map((line) => valueIn(line, 'BT-153'))).toEqual(['Tide gauge']);
    expect(view.terms.find(({ id }) => id === 'BT-1')?.name).toBe('Invoice number');
    expect(groupsIn(view, 'BG-1').map(({ id }) => GROUPS[id])).toEqual(['Invoice note']);
  });
  test('of a model without a file has no lines', () => {
    const plain = viewOf(setIn(['BG-25'], { 'BT-154': 'x' })(baseInvoice()));
    expect(new Set([plain, ...plain.groups].flatMap(({ terms }) => terms.map(({ line }) => line)))).toEqual(
      new Set([0]),
    );
  });
});
