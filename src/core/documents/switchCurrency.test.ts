import { discountOf, draftOf, lineOf } from 'tests/book';
import { decimal } from '@/core/kernel/decimal';
import { hasPrices, switchCurrency } from './switchCurrency';

const home = draftOf({
  lines: [lineOf({ id: 'a', price: '940', discount: '10%' }), lineOf({ id: 'b', price: '0.333', discount: '1.50' })],
  adjustments: [discountOf('12.00'), { ...discountOf('5%'), id: 'percent' }],
});
const dollars = { from: decimal('1'), to: decimal('1.104') };
const back = { from: decimal('1.104'), to: decimal('1') };
const prices = (draft: typeof home) => [
  ...draft.lines.map((line) => [line.price, line.discount]),
  ...draft.adjustments.map((a) => a.amount),
];

describe('another currency', () => {
  const converted = switchCurrency(home, 'USD', 'converted', dollars, 'EUR', null);
  test('converts prices and amounts, not percentages', () => {
    // 940 × 1.104 = 1037.76; 0.333 × 1.104 = 0.3676…; 1.50 × 1.104 = 1.656.
    expect(prices(converted)).toEqual([['1037.76', '10%'], ['0.37', '1.66'], '13.25', '5%']);
    expect([converted.currency, converted.perHome]).toEqual(['USD', '']);
  });
  test('and back gives what was typed, but for what was changed meanwhile', () => {
    const left = { currency: '', before: home, after: converted };
    expect(prices(switchCurrency(converted, '', 'converted', back, 'EUR', left))).toEqual(prices(home));
    const changed = { ...converted, lines: converted.lines.map((l) => (l.id === 'a' ? { ...l, price: '1104' } : l)) };
    expect(prices(switchCurrency(changed, '', 'converted', back, 'EUR', left))[0]).toEqual(['1000.00', '10%']);
  });
  test('leaves prices as typed where that is asked for', () => {
    expect(prices(switchCurrency(home, 'USD', 'as-typed', dollars, 'EUR', null))).toEqual(prices(home));
  });
  test('is only asked about once a price stands', () => {
    expect([hasPrices(home), hasPrices(draftOf({ lines: [lineOf({ price: '' })] }))]).toEqual([true, false]);
  });
});
