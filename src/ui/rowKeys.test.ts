import { rowAfter } from './rowKeys';
import { readKeptList } from './useKeptList';

describe('keys of a list', () => {
  test.each([
    ['ArrowDown', 3, 4],
    ['ArrowUp', 3, 2],
    ['ArrowUp', 0, 0],
    ['ArrowDown', 9, 9],
    ['PageDown', 0, 9],
    ['Home', 7, 0],
    ['End', 7, 9],
    ['a', 7, null],
  ])('%s from row %d of ten leads to %s', (key, at, to) => expect(rowAfter(key, at, 10)).toBe(to));
});

describe('a list as it was left', () => {
  const left = { sorting: [{ id: 'Total', desc: true }], hidden: ['Due'] };
  test('is read as it was kept', () => expect(readKeptList(JSON.stringify(left))).toEqual(left));
  test.each([null, '', 'nonsense', '{}', '{"sorting":[{"id":1}],"hidden":[]}', '{"sorting":[],"hidden":"Due"}'])(
    'is plain where %s is kept',
    (text) => expect(readKeptList(text)).toEqual({ sorting: [], hidden: [] }),
  );
});
