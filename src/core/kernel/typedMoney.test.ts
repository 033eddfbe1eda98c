import { currency } from './currency';
import { minor } from './money';
import { moneySample, readTypedMoney, typedMoney } from './typedMoney';

const EUR = currency('EUR');

describe('money as it is typed', () => {
  test.each([
    ['12.50', 1250n],
    ['1,234.5', 123450n],
    ['12', 1200n],
    ['-3', -300n],
  ])('%s is %s cents', (typed, cents) => expect(readTypedMoney(typed, EUR)).toBe(cents));
  test.each(['', 'much', '1.005'])('%p is none', (typed) => expect(readTypedMoney(typed, EUR)).toBeNull());
  test('samples have the decimals of the currency', () => {
    expect([moneySample(EUR), moneySample(currency('JPY')), moneySample(currency('KWD'))]).toEqual([
      '12.50',
      '12',
      '12.500',
    ]);
  });
  test('an empty field stands for what it is said to stand for, and is refused at its path otherwise', () => {
    expect(typedMoney(' ', EUR, 'amount', minor(5n))).toEqual({ ok: true, value: 5n });
    expect(typedMoney('', EUR, 'amount')).toMatchObject({ refusals: [{ code: 'invalid', path: 'amount' }] });
    expect(typedMoney('1.005', EUR, 'fee', minor(0n))).toMatchObject({ refusals: [{ path: 'fee', found: '1.005' }] });
  });
});
