import fc from 'fast-check';
import { csvRows, readCells, readCsv, writeCsv } from './csv';

const HEADS = ['key', 'one', 'two'] as const;

/** What a cell may hold: anything, and often what spreadsheets take for more than text. */
const cellArb = fc
  .oneof(
    fc.string({ unit: 'grapheme' }),
    fc
      .tuple(fc.constantFrom('=', '+', '-', '@', "'", "''", ';=', '|@', '\n=', '＝', '"', ','), fc.string())
      .map((parts) => parts.join('')),
    fc.constantFrom('-12.50', '+3', '1,5', '0', '-', '=1+1', "'=1+1", 'a,b', 'say "so"', 'two\nlines'),
  )
  .map((text) => text.trim());

const rowsArb = fc.array(fc.tuple(fc.nat().map(String), cellArb, cellArb), { minLength: 1, maxLength: 8 });

const cellsOf = (text: string, heads: readonly string[] = HEADS) => {
  const read = readCsv(text, heads);
  if (!read.ok) throw new Error(JSON.stringify(read.refusals));
  return read.value.map(({ cells }) => heads.map((head) => cells[head] ?? ''));
};

describe('what is written', () => {
  test('comes back as it was, whatever the cells hold', () => {
    fc.assert(fc.property(rowsArb, (rows) => expect(cellsOf(writeCsv(HEADS, rows))).toEqual(rows)));
  });

  test('has no cell that a spreadsheet runs: a sign at its start stands behind an apostrophe, but for plain numbers', () => {
    fc.assert(
      fc.property(cellArb, (cell) => {
        const [written = ''] = readCells(csvRows([[cell]]))[0] ?? [];
        if (/^[+-]?\d+([.,]\d+)?$/.test(cell)) expect(written).toBe(cell);
        else expect(written).not.toMatch(/^\s*[=+\-@＝＋－＠]/);
      }),
    );
  });

  test.each([
    ['=SUM(A1)', "'=SUM(A1)"],
    ['@cmd', "'@cmd"],
    ['-2+3', "'-2+3"],
    ['-2.30', '-2.30'],
    ['+44 20', "'+44 20"],
    ['a;=b', "a;'=b"],
    ['＝1', "'＝1"],
    ['plain', 'plain'],
  ])('%s is written as %s', (cell, written) => {
    expect(csvRows([[cell]])).toBe(`${/[",\n]/.test(written) ? `"${written}"` : written}\r\n`);
  });
});

describe('what is read', () => {
  test.each<[string, string]>([
    ['heads in another order and case', 'Two,KEY,one\r\ny,k,x\r\n'],
    ['a mark of its encoding at the start', '\ufeffkey,one,two\nk,x,y\n'],
    ['apart by semicolons', 'key;one;two\nk;x;y\n'],
    ['columns that nobody asked for', 'key,other,one,two\nk,z,x,y\n'],
    ['empty lines', 'key,one,two\n\nk,x,y\n,,\n'],
    ['blanks around', ' key , one , two \n k , x , y \n'],
  ])('may have %s', (_, text) => {
    expect(cellsOf(text)).toEqual([['k', 'x', 'y']]);
  });

  test('may lack cells at the end of a row, and heads that are optional', () => {
    expect(cellsOf('key,one,two\nk\n')).toEqual([['k', '', '']]);
    const read = readCsv('key,one\nk,x\n', HEADS, ['two']);
    expect(read.ok && read.value).toEqual([{ row: 2, cells: { key: 'k', one: 'x' } }]);
  });

  test('says the row of each by the lines of the file', () => {
    const read = readCsv('key,one,two\na,1,1\nb,2,2\n', HEADS);
    expect(read.ok && read.value.map(({ row }) => row)).toEqual([2, 3]);
  });

  test.each<[string, string, string]>([
    ['no rows at all', '', 'row 1'],
    ['heads that are missing', 'key,one\nk,x\n', 'row 1'],
    ['more cells than heads', 'key,one,two\na,b,c\nk,x,y,z\n', 'row 3'],
    ['a quotation mark that is not closed', 'key,one,two\nk,"x,y\n', 'row 2'],
  ])('is refused with %s', (_, text, path) => {
    const read = readCsv(text, HEADS);
    expect(read.ok ? [] : read.refusals.map((refusal) => refusal.path)).toEqual([path]);
  });

  test('is refused beyond 20 MiB, before it is parsed', () => {
    const read = readCsv(`key,one,two\n${'x'.repeat(20 * 2 ** 20)}`, HEADS);
    expect(read.ok ? '' : read.refusals[0]?.code).toBe('too-large');
    expect(readCells('x'.repeat(20 * 2 ** 20 + 1))).toEqual([]);
  });
});
