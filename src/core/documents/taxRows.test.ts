import { isoDate } from '@/core/kernel/date';
import { decimal } from '@/core/kernel/decimal';
import { minor } from '@/core/kernel/money';
import type { ResolvedComponent } from '@/core/tax/resolve';
import type { FrozenTax } from './content';
import { taxLabel, taxRows } from './taxRows';

const since = isoDate('2026-01-01');

const component = (taxName: string, percent: string, family: string, more: object = {}): ResolvedComponent => ({
  taxId: `${family}-${taxName}`,
  taxName,
  jurisdictionId: 'X',
  jurisdictionName: 'X',
  family,
  compound: false,
  percent: decimal(percent),
  perUnit: '',
  insteadOf: '',
  since,
  source: '',
  relief: null,
  ...more,
});

const tax = (
  name: string,
  components: readonly ResolvedComponent[],
  category: FrozenTax['category'] = 'S',
): FrozenTax => ({
  code: 'X',
  name,
  category,
  percent: decimal('0'),
  since,
  legend: '',
  exemptionCode: '',
  components,
});

const KARNATAKA = tax('Karnataka, 18 %', [component('CGST', '9', 'c'), component('SGST', '9', 's')]);
const SEATTLE = tax('Seattle, 10.35 %', [
  component('State sales tax', '6.5', 'wa'),
  component('Seattle sales tax', '3.85', 'wa'),
]);

test.each<[string, FrozenTax, string]>([
  ['a tax by its own name and percent', tax('Standard 23', [component('VAT', '23', 'v')]), 'VAT 23 %'],
  ['two taxes side by side', KARNATAKA, 'CGST 9 % + SGST 9 %'],
  ['taxes that a place rounds together as its one rate', SEATTLE, 'Seattle, 10.35 %'],
  ['what nothing is charged on by the name of its code', tax('Reverse charge', [], 'AE'), 'Reverse charge'],
  [
    'a customer that is freed by the name of its code',
    tax('Seattle, 0 %', [component('Sales tax', '0', 'w', { relief: { kind: 'certificate' }, insteadOf: '6.5' })], 'E'),
    'Seattle, 0 %',
  ],
  [
    'an amount per unit without a percent',
    tax('Levy', [component('Levy', '0', 'l', { percent: '', perUnit: '0.25' })]),
    'Levy',
  ],
])('a label names %s', (_, one, words) => expect(taxLabel(one)).toBe(words));

test('each tax has a row with its base and what it comes to', () => {
  // 18 % of 1,000.05: 9 % are 90.0045, rounded 90.00, twice.
  const group = {
    tax: 'X',
    net: minor(100005n),
    taxAmount: minor(18000n),
    gross: minor(118005n),
    components: [
      { id: 'c-CGST', family: 'c', amount: minor(9000n) },
      { id: 's-SGST', family: 's', amount: minor(9000n) },
    ],
  };
  expect(taxRows([KARNATAKA], [group])).toMatchObject([
    { code: 'X', name: 'CGST', percent: '9', base: 100005n, amount: 9000n },
    { code: 'X', name: 'SGST', percent: '9', base: 100005n, amount: 9000n },
  ]);
  expect(taxRows([SEATTLE], [group])).toMatchObject([{ name: 'Seattle, 10.35 %', percent: '', amount: 18000n }]);
});
