import { differences } from './differences';
import { wordEndings, wordsHold, wordsIn, wordsOf } from './words';

describe('what two records say differently', () => {
  test('is told field by field, lists by place, amounts as the caller shows them', () => {
    const before = { name: 'A', open: 100n, tags: ['x'], same: 1, gone: 'was here' };
    const after = { name: 'B', open: 250n, tags: ['x', 'y'], same: 1, gone: '' };
    expect(differences(before, after, (amount) => `${amount} c`)).toEqual([
      { path: 'name', before: 'A', after: 'B' },
      { path: 'open', before: '100 c', after: '250 c' },
      { path: 'gone', before: 'was here', after: '' },
      { path: 'tags[2]', before: '', after: 'y' },
    ]);
  });
  test('is nothing between equals, and all of it against nothing', () => {
    expect(differences({ a: { b: 1 } }, { a: { b: 1 } })).toEqual([]);
    expect(differences(undefined, { a: { b: 1 } })).toEqual([{ path: 'a.b', before: '', after: '1' }]);
  });
});

describe('words', () => {
  test.each([
    ['Größe 1,234.50 EUR', ['große', '1234.50', 'eur']],
    ['INV-2026-0142', ['inv', '2026', '0142']],
    ['12.5 %, v1.2.3', ['12', '5', 'v1', '2', '3']],
  ])('of %p', (text, words) => expect(wordsOf(text)).toEqual(words));
  test('are distinct and of bounded length', () => {
    expect(wordsIn(['a b', 'b c'])).toEqual(['a', 'b', 'c']);
    expect(wordsIn(['x'.repeat(90)])[0]).toHaveLength(40);
  });
  test('are found by any part, through their endings', () => {
    expect(wordEndings('quay')).toEqual(['quay', 'uay', 'ay']);
    expect(wordEndings('a')).toEqual(['a']);
    expect(wordsHold(['harbour', '1234.50'], ['bou', '34.5'])).toBe(true);
    expect(wordsHold(['harbour'], ['bou', 'x'])).toBe(false);
  });
});
