/** Shorter words fit on any line. */
const SHORT = 8;
const LETTER = /\p{L}/u;

/**
 * The text with words that fill more than a line broken by line ends, with a hyphen between letters: the library would
 * break them anywhere and unmarked, and measure such a word anew from its start at every letter. Font and size are those
 * the page is set to; `width` in points.
 */
export function withLongWordsBroken(doc: PDFKit.PDFDocument, text: string, width: number): string {
  if (text.length < SHORT) return text;
  const widths = new Map<string, number>();
  const widthOf = (letter: string): number => {
    const known = widths.get(letter) ?? doc.widthOfString(letter);
    widths.set(letter, known);
    return known;
  };
  // The library counts the line end as a letter of its line.
  const room = width - widthOf('\n');
  return text.replace(/\S{8,}/g, (word) => {
    const letters = [...word];
    if (letters.reduce((sum, letter) => sum + widthOf(letter), 0) <= width) return word;
    const rows: string[] = [];
    let row: string[] = [];
    let used = 0;
    for (const letter of letters) {
      const more = widthOf(letter);
      if (row.length > 0 && used + more + widthOf('-') > room) {
        const parted = row.length > 1 && LETTER.test(row.at(-1) ?? '') && LETTER.test(letter);
        rows.push(row.join('') + (parted ? '-' : ''));
        row = [];
        used = 0;
      }
      row.push(letter);
      used += more;
    }
    return [...rows, row.join('')].join('\n');
  });
}
