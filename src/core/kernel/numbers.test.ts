import fc from 'fast-check';
import { readCanonical, writeCanonical } from './canonical';
import { currency, exponentOf } from './currency';
import { decimal, isDecimal, ratioOf, readTypedDecimal, trimmed, writeUnits } from './decimal';
import { minor, readMoney, writeMoney } from './money';
import { halfEven, halfUp } from './rounding';
import { share } from './share';
import { showMoney, showNumber, showPrice } from './show';

const EUR = currency('EUR');

describe('decimals', () => {
  test.each(['0', '-0.5', '12.50', '999999999999999999999999.999999999999999999'])('%s is one', (text) => {
    expect(isDecimal(text)).toBe(true);
  });
  test.each(['', '.5', '5.', '1e3', '1,5', 'NaN', '0x1', '--1', '1 000'])('%p is none', (text) => {
    expect(isDecimal(text)).toBe(false);
  });

  test.each([
    ['12,5', '12.5'],
    ['1,234', '1234'],
    ['1,234.50', '1234.50'],
    ['1.234,50', '1234.50'],
    ['1 234.5', '1234.5'],
    ['\u22124', '-4'],
    ['.5', '0.5'],
    ['-.5', '-0.5'],
    ['7.', '7'],
  ])('typed %p is read as %s', (typed, read) => {
    expect(readTypedDecimal(typed)).toBe(read);
  });
  test.each(['', 'abc', '1.2.3', '5 apples', '1,2,3'])('typed %p is not a number', (typed) => {
    expect(readTypedDecimal(typed)).toBeNull();
  });

  test('units and text are two forms of the same number', () => {
    fc.assert(
      fc.property(fc.bigInt(-(10n ** 20n), 10n ** 20n), fc.integer({ min: 0, max: 10 }), (units, decimals) => {
        const { n, d } = ratioOf(writeUnits(units, decimals));
        expect(n * 10n ** BigInt(decimals)).toBe(units * d);
      }),
    );
  });

  test('trimming drops zeros behind the point only', () => {
    expect([trimmed(decimal('13.500')), trimmed(decimal('4.0')), trimmed(decimal('100'))]).toEqual([
      '13.5',
      '4',
      '100',
    ]);
  });
});

describe('rounding at the tie', () => {
  test.each([
    [25n, 3n, 2n],
    [-25n, -3n, -2n],
    [35n, 4n, 4n],
    [24n, 2n, 2n],
    [-26n, -3n, -3n],
  ])('%s tenths: half-up %s, half-even %s', (tenths, up, even) => {
    expect(halfUp({ n: tenths, d: 10n })).toBe(up);
    expect(halfEven({ n: tenths, d: 10n })).toBe(even);
  });
});

describe('money', () => {
  test('takes the minor unit of its currency', () => {
    expect(['EUR', 'JPY', 'KWD'].map((code) => exponentOf(currency(code)))).toEqual([2, 0, 3]);
    expect(writeMoney(minor(-5n), EUR)).toBe('-0.05');
    expect(writeMoney(minor(1999n), currency('JPY'))).toBe('1999');
  });
  test('is refused with digits below the minor unit, unless they are zeros', () => {
    expect(readMoney(decimal('10.00'), currency('JPY'))).toBe(10n);
    expect(readMoney(decimal('10.005'), EUR)).toBeNull();
    expect(readMoney(decimal('10.500'), EUR)).toBe(1050n);
  });
  test('is shown with thousands and a true minus', () => {
    expect(showMoney(minor(-123456789n), EUR)).toBe('\u22121,234,567.89');
    expect(showNumber(decimal('13.500'))).toBe('13.5');
    expect([
      showPrice(decimal('1.5'), EUR),
      showPrice(decimal('0.0125'), EUR),
      showPrice(decimal('1200'), EUR),
    ]).toEqual(['1.50', '0.0125', '1,200.00']);
  });
});

describe('share', () => {
  test('gives the left-over units to the largest remainders', () => {
    expect(share(5n, [60n, 25n, 15n])).toEqual([3n, 1n, 1n]);
    expect(share(-5n, [60n, 25n, 15n])).toEqual([-3n, -1n, -1n]);
    expect(share(100n, [1n, 1n, 1n])).toEqual([34n, 33n, 33n]);
  });
  test('gives everything to the first when the weights cancel out', () => {
    expect(share(7n, [5n, -5n])).toEqual([7n, 0n]);
    expect(share(7n, [])).toEqual([]);
  });

  const weights = fc.array(fc.bigInt(-1000n, 100000n), { minLength: 1, maxLength: 30 });
  test('adds up, mirrors, and stays within a unit of the exact part', () => {
    fc.assert(
      fc.property(fc.bigInt(-(10n ** 9n), 10n ** 9n), weights, (total, w) => {
        const parts = share(total, w);
        const sum = w.reduce((a, b) => a + b, 0n);
        expect(parts.reduce((a, b) => a + b, 0n)).toBe(total);
        expect(share(-total, w)).toEqual(parts.map((part) => -part));
        expect(
          share(
            -total,
            w.map((x) => -x),
          ),
        ).toEqual(parts.map((part) => -part));
        if (sum === 0n) return;
        w.forEach((weight, i) => {
          const apart = (parts[i] ?? 0n) * sum - total * weight;
          expect(apart * apart).toBeLessThan(sum * sum);
        });
      }),
    );
  });
});

describe('canonical JSON', () => {
  test('sorts keys, keeps amounts exact, leaves out what is undefined', () => {
    expect(writeCanonical({ b: [1, null], a: 12345678901234567890n, c: undefined })).toBe(
      '{"a":{"minor":"12345678901234567890"},"b":[1,null]}',
    );
  });
  test('reads back what it wrote', () => {
    const values = fc.letrec((tie) => ({
      any: fc.oneof(
        fc.string(),
        fc.bigInt(),
        fc.integer(),
        fc.boolean(),
        fc.constant(null),
        fc.array(tie('any')),
        tie('map'),
      ),
      map: fc.dictionary(
        fc.string().filter((key) => key !== '__proto__' && key !== 'minor'),
        tie('any'),
        { noNullPrototype: true },
      ),
    })).any;
    fc.assert(fc.property(values, (value) => expect(readCanonical(writeCanonical(value))).toEqual(value)));
  });
});
