import fc from 'fast-check';
import type { CsvRow } from '@/core/book/columns/columns';
import { atOdds, twice, withIds } from './rowIds';

const rowOf = (row: number, cells: Record<string, string>): CsvRow => ({ row, cells });
const rowsOf = (...all: readonly Record<string, string>[]) => all.map((cells, i) => rowOf(i + 2, cells));
const ids = (rows: readonly CsvRow[]) => rows.map(({ cells }) => cells.id);

describe('ids of rows that give none', () => {
  test('are made from their names, in plain letters', () => {
    const { rows, refusals } = withIds(rowsOf({ name: 'Süd & Söhne' }, { name: 'Clew Bay' }), []);
    expect(ids(rows)).toEqual(['sud-sohne', 'clew-bay']);
    expect(refusals).toEqual([]);
  });

  test('are cut where a name is long, and numbered where two are cut to the same', () => {
    const long = 'a'.repeat(45);
    const { rows } = withIds(rowsOf({ name: `${long}x` }, { name: `${long}y` }), []);
    expect(ids(rows)).toEqual(['a'.repeat(40), `${'a'.repeat(40)}-2`]);
  });

  test('are those of the row where a name has no letters', () => {
    expect(ids(withIds(rowsOf({ name: '—' }), []).rows)).toEqual(['row-2']);
  });

  test('leave alone what gives an id, or has no name', () => {
    const given = rowsOf({ id: 'mine', name: 'Clew Bay' }, { id: '', name: '' });
    expect(withIds(given, []).rows).toEqual(given);
  });

  test('are asked for where the name is that of a record of the book, or of a row before', () => {
    const { refusals } = withIds(rowsOf({ name: 'Clew Bay' }, { name: 'New' }, { name: 'new' }), [
      { id: 'clewbay', name: 'CLEW BAY' },
    ]);
    expect(refusals.map(({ path, ...rest }) => [path, 'wanted' in rest ? rest.wanted : ''])).toEqual([
      ['row 2, id', { what: 'id-of-the-one-meant', by: { id: 'clewbay' } }],
      ['row 4, id', { what: 'id-of-the-one-meant', by: { row: 3 } }],
    ]);
  });

  test('never are those of another row or record', () => {
    const nameArb = fc.constantFrom('a', 'A', 'ä', 'a b', 'a-b', 'b', '—', 'row 2');
    fc.assert(
      fc.property(
        fc.array(fc.record({ id: fc.constantFrom('', '', 'a', 'row-3'), name: nameArb }), { maxLength: 6 }),
        fc.array(
          nameArb.map((name) => ({ id: name.toLowerCase(), name })),
          { maxLength: 3 },
        ),
        (cells, known) => {
          const { rows } = withIds(rowsOf(...cells), known);
          const made = ids(rows).filter((_, i) => cells[i]?.id === '');
          const given = cells.map(({ id }) => id).filter(Boolean);
          expect(new Set(made).size).toBe(made.length);
          for (const id of made) expect([...given, ...known.map((one) => one.id)]).not.toContain(id);
        },
      ),
    );
  });
});

test('a record that stands twice in a file is refused at the second, with the row of the first', () => {
  const record = (id: string, row: number) => ({ value: { id }, rows: [row] });
  expect(twice([record('a', 2), record('b', 3), record('a', 4)], 'code')).toEqual([
    { code: 'invalid', path: 'row 4, code', wanted: { what: 'another-row', row: 2 }, found: 'a' },
  ]);
});

test('rows of one record that say different things of it as a whole are refused, those of others are not', () => {
  const rows = rowsOf(
    { id: 'a', name: 'Alpha', rate: '1' },
    { id: 'a', name: 'Beta', rate: '2' },
    { id: 'b', name: 'Gamma', rate: '3' },
  );
  expect(atOdds(rows, ['name'], ({ cells }) => cells.id ?? '')).toEqual([
    { code: 'invalid', path: 'row 3, name', wanted: { what: 'same-of-record', row: 2, said: 'Alpha' }, found: 'Beta' },
  ]);
});
