import { currency } from '@/core/kernel/currency';
import { isoDate } from '@/core/kernel/date';
import { decimal } from '@/core/kernel/decimal';
import { validated } from '@/core/kernel/validate';
import type { CalcInput } from './calcTypes';
import { calculate } from './calculate';
import { determineCode } from './determine';
import { rateOn, type TaxCode, taxCodeSchema } from './taxCode';
import { explainLine } from './workings';

const standard: TaxCode = {
  id: 'IE-S',
  name: 'Standard 23',
  category: 'S',
  taxClass: 'standard',
  legend: '',
  exemptionCode: '',
  rates: [
    { from: isoDate('2020-09-01'), percent: decimal('21') },
    { from: isoDate('2021-03-01'), percent: decimal('23') },
  ],
};
const reverse: TaxCode = {
  ...standard,
  id: 'IE-RC',
  name: 'Reverse charge',
  category: 'AE',
  taxClass: '',
  legend: 'Reverse charge',
  rates: [{ from: isoDate('2010-01-01'), percent: decimal('0') }],
};

describe('a rate is chosen by the tax point', () => {
  test.each([
    ['2020-08-31', undefined],
    ['2020-09-01', '21'],
    ['2021-02-28', '21'],
    ['2021-03-01', '23'],
    ['2030-01-01', '23'],
  ])('on %s: %s', (day, percent) => expect(rateOn(standard, isoDate(day))?.percent).toBe(percent));
});

describe('a tax code', () => {
  const paths = (code: object) => {
    const result = validated(taxCodeSchema, { ...standard, ...code });
    return result.ok ? [] : result.refusals.map((refusal) => refusal.path);
  };
  test('is kept when it is whole', () => expect(paths({})).toEqual([]));
  test.each<[string, object, string]>([
    ['reverse charge with a rate', { category: 'AE', legend: 'x' }, 'rates[0].percent'],
    ['exempt without words', { category: 'E', rates: [{ from: '2020-01-01', percent: '0' }] }, 'legend'],
    ['two rates on one day', { rates: [standard.rates[0], standard.rates[0]] }, 'rates[1].from'],
    ['no rate', { rates: [] }, 'rates'],
    ['a rate in words', { rates: [{ from: '2020-01-01', percent: 'some' }] }, 'rates[0].percent'],
    ['a strange exemption code', { exemptionCode: 'because' }, 'exemptionCode'],
    ['small letters', { id: 's23' }, 'id'],
  ])('%s is refused', (_, code, path) => expect(paths(code)).toContain(path));
});

describe('which code a line takes', () => {
  const codes = [standard, reverse];
  test.each([
    ['the customer’s own goes first', { name: 'N', taxCode: 'IE-RC' }, 'standard', 'IE-RC', [true]],
    ['else the one of the class', { name: 'N', taxCode: '' }, 'standard', 'IE-S', [false, true]],
    ['a typed line is taken as standard', null, '', 'IE-S', [false, true]],
    ['a class nobody knows gives none', null, 'ships', undefined, [false]],
  ])('%s', (_, customer, taxClass, code, held) => {
    const verdict = determineCode(codes, customer, taxClass);
    expect(verdict.code?.id).toBe(code);
    expect(verdict.trail.map((reason) => reason.held)).toEqual(held);
  });
});

describe('workings', () => {
  const input = (priceMode: 'net' | 'gross'): CalcInput => ({
    currency: currency('EUR'),
    priceMode,
    rounding: { mode: 'half-up', level: 'document' },
    taxes: { S: { category: 'S', components: [{ id: 'S', rate: decimal('23') }] } },
    lines: [
      { id: 'a', quantity: decimal('1'), unitPrice: decimal('940'), tax: 'S' },
      { id: 'b', quantity: decimal('1.5'), unitPrice: decimal('160'), discount: { percent: decimal('10') }, tax: 'S' },
    ],
    adjustments: [],
    overrides: [],
    withholding: [],
  });
  test('show the line, the tax of its group and its share', () => {
    const net = input('net');
    expect(explainLine(net, calculate(net), 'b').map(({ words, amount }) => [words, amount])).toEqual([
      ['1.5 × 160.00', 24000n],
      ['less 10 %', -2400n],
      ['net', 21600n],
      ['23 % of 1,156.00 (lines 1, 2)', 26588n],
      ['this line’s share', 4968n],
    ]);
  });
  test('say what a price holds when the tax is inside', () => {
    const gross = input('gross');
    const words = explainLine(gross, calculate(gross), 'a').map((step) => step.words);
    expect(words).toContain('1,156.00 holds 23 % (lines 1, 2)');
    expect(words.at(-1)).toBe('net');
  });
  test('are empty for a line that is not there', () => {
    expect(explainLine(input('net'), calculate(input('net')), 'zzz')).toEqual([]);
  });
});
