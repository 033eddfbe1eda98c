import { currency } from '@/core/kernel/currency';
import { decimal } from '@/core/kernel/decimal';
import { validated } from '@/core/kernel/validate';
import type { CalcInput } from './calcTypes';
import { calculate } from './calculate';
import { legendIn, type TaxCode, taxCodeSchema } from './taxCode';
import { explainLine } from './workings';

const standard: TaxCode = {
  id: 'IE-S',
  name: 'Standard {rate}',
  category: 'S',
  components: [{ taxId: 'IE-VAT', taxClass: 'standard', family: '', compound: false }],
  legends: [],
  exemptionCode: '',
  boxBase: '',
  boxTax: 'T1',
};

describe('a tax code', () => {
  const paths = (code: object) => {
    const result = validated(taxCodeSchema, { ...standard, ...code });
    return result.ok ? [] : result.refusals.map((refusal) => refusal.path);
  };
  const reason = { language: 'en', text: 'Exempt' };
  test('is kept when it is whole', () => expect(paths({})).toEqual([]));
  test.each<[string, object, string]>([
    ['reverse charge that charges a tax', { category: 'AE', legends: [reason] }, 'components'],
    ['exempt without words', { category: 'E', components: [] }, 'legends'],
    ['two legends in one language', { legends: [reason, reason] }, 'legends[1].language'],
    ['a taxed code without a tax', { components: [] }, 'components'],
    ['one tax twice', { components: [...standard.components, ...standard.components] }, 'components[1].taxId'],
    ['a strange exemption code', { exemptionCode: 'because' }, 'exemptionCode'],
    ['small letters', { id: 's23' }, 'id'],
  ])('%s is refused', (_, code, path) => expect(paths(code)).toContain(path));
  test('gives its words in the customer’s language, else in the first', () => {
    const legends = [reason, { language: 'de', text: 'Steuerfrei' }];
    expect(['de', 'en', 'fr'].map((language) => legendIn(legends, language))).toEqual([
      'Steuerfrei',
      'Exempt',
      'Exempt',
    ]);
    expect(legendIn([], 'en')).toBe('');
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
      ['discount 10 %', -2400n],
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
