import { withLongWordsBroken } from './longWords';

/** A page on which every letter is 5 points wide, with a count of what was measured. */
function ruledPage() {
  const measured: string[] = [];
  const doc = { widthOfString: (text: string) => measured.push(text) && text.length * 5 };
  return { doc: doc as unknown as PDFKit.PDFDocument, measured };
}

describe('words that fill more than a line', () => {
  test('are broken where the line ends, nothing lost, each letter measured once', () => {
    const { doc, measured } = ruledPage();
    const word = 'abcd'.repeat(5000);
    const rows = withLongWordsBroken(doc, word, 106).split('\n');
    expect(rows.map((row) => row.replace(/-$/, '')).join('')).toBe(word);
    expect(rows.every((row, i) => (row.length === 20 && row.endsWith('-')) || i === rows.length - 1)).toBe(true);
    expect(measured).toEqual(['\n', 'a', 'b', 'c', 'd', '-']);
  });

  test('leave the words around them as they are', () => {
    const { doc } = ruledPage();
    const word = 'x'.repeat(61);
    expect(withLongWordsBroken(doc, `before ${word} after`, 255)).toBe(
      `before ${'x'.repeat(49)}-\n${'x'.repeat(12)} after`,
    );
    expect(
      withLongWordsBroken(doc, 'many short words that are longer than a line together, but none of them alone', 50),
    ).toBe('many short words that are longer than a line together, but none of them alone');
  });

  test('get no hyphen where figures or signs are parted, nor where they fit', () => {
    const { doc } = ruledPage();
    expect(withLongWordsBroken(doc, '1234567890-ABCDEF', 60)).toBe('1234567890\n-ABCDEF');
    expect(withLongWordsBroken(doc, 'Schifffahrt', 60)).toBe('Schifffahrt');
  });

  test('are broken in a column of less than a letter, too', () => {
    expect(withLongWordsBroken(ruledPage().doc, 'x'.repeat(60), 1).split('\n')).toHaveLength(60);
  });
});
