/** Shorter words are left to the library that sets the text. */
const LONG = 60;

/**
 * The text with words that fill more than a line broken by line ends, letter by letter: the library would measure
 * such a word anew from its start at every letter. Font and size are those the page is set to; `width` in points.
 */
export function withLongWordsBroken(doc: PDFKit.PDFDocument, text: string, width: number): string {
  if (text.length < LONG) return text;
  const widths = new Map<string, number>();
  const widthOf = (letter: string): number => {
    const known = widths.get(letter) ?? doc.widthOfString(letter);
    widths.set(letter, known);
    return known;
  };
  // The library counts the line end as a letter of its line.
  const room = width - doc.widthOfString('\n');
  return text.replace(/\S{60,}/g, (word) => {
    const rows: string[] = [];
    let row = '';
    let used = 0;
    for (const letter of word) {
      const more = widthOf(letter);
      if (row !== '' && used + more > room) {
        rows.push(row);
        row = '';
        used = 0;
      }
      row += letter;
      used += more;
    }
    return [...rows, row].join('\n');
  });
}
