import fc from 'fast-check';
import { sameCanonical, writeCanonical } from './canonical';

/** Values as books hold them, with what may be left out. */
const { value } = fc.letrec((tie) => ({
  value: fc.oneof(
    { depthSize: 'small' },
    fc.constantFrom(null, undefined, true, '', 'a', 'é"\n', 0, 1, 0n, 1n, -1n),
    fc.array(tie('value'), { maxLength: 3 }),
    fc.dictionary(fc.constantFrom('a', 'b', 'minor'), tie('value'), { maxKeys: 3, noNullPrototype: true }),
  ),
}));

test('two values are the same when their texts are, whatever they are', () => {
  fc.assert(
    fc.property(value, value, (a, b) => sameCanonical(a, b) === (writeCanonical(a) === writeCanonical(b))),
    {
      numRuns: 500,
    },
  );
});

test('a copy is the same, whatever the order of its keys and with what is left out', () => {
  const figures = { net: 100n, taxes: [{ code: 'S', tax: 23n }], note: undefined };
  expect(sameCanonical(figures, { taxes: [{ tax: 23n, code: 'S' }], net: 100n })).toBe(true);
  expect(sameCanonical(figures, { taxes: [{ tax: 24n, code: 'S' }], net: 100n })).toBe(false);
  expect(sameCanonical(figures, { taxes: [], net: 100n })).toBe(false);
  // An amount is written as an object of its digits.
  expect(sameCanonical(1n, { minor: '1' })).toBe(true);
});
