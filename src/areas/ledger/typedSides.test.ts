import fc from 'fast-check';
import { currency } from '@/core/kernel/currency';
import { minor, total } from '@/core/kernel/money';
import { differenceOf, readSides, typedSide } from './typedSides';

const EUR = currency('EUR');
const at = (i: number) => `sides[${i}]`;

test('debits are above zero, credits below, an empty side is nothing', () => {
  const sides = [
    { debit: '1,234.50', credit: '' },
    { debit: '', credit: '1000' },
    { debit: '', credit: ' ' },
  ];
  expect(readSides(sides, EUR, at)).toEqual({ ok: true, value: [123_450n, -100_000n, 0n] });
  expect(differenceOf(sides, EUR)).toBe(23_450n);
});

test('what is no amount is named where it stands, and counts as nothing while it is typed', () => {
  const sides = [
    { debit: '10', credit: '' },
    { debit: '', credit: '1o' },
  ];
  const found = readSides(sides, EUR, at);
  expect(found.ok ? [] : found.refusals.map(({ path, code }) => [path, code])).toEqual([['sides[1]', 'invalid']]);
  expect(differenceOf(sides, EUR)).toBe(1_000n);
});

test('an amount that is shown on its side is read back as it was', () => {
  const amounts = fc.array(fc.bigInt(-(10n ** 12n), 10n ** 12n).map(minor), { maxLength: 5 });
  fc.assert(
    fc.property(amounts, (all) => {
      const sides = all.map((amount) => typedSide(amount, EUR));
      expect(readSides(sides, EUR, at)).toEqual({ ok: true, value: all });
      expect(differenceOf(sides, EUR)).toBe(total(all));
    }),
  );
});
