/* Words and numbers in what a payer and a bank wrote. */

/** Words that say nothing of who a business is. */
const COMMON = new Set(
  'THE AND FOR LTD LIMITED PLC INC LLC CO COMPANY GMBH AG KG MBH SA SARL SAS SL BV NV TEO SAMPLE VON DER DIE DAS DE LA LE DU'.split(
    ' ',
  ),
);

const plain = (text: string): string => text.normalize('NFD').replace(/\p{M}/gu, '').toUpperCase();

/** Words of a name that tell it from others: `PIER`, `CHANDLERS`. */
export function nameWords(name: string): readonly string[] {
  return [...new Set(plain(name).split(/[^A-Z0-9]+/))].filter((word) => word.length > 2 && !COMMON.has(word));
}

/** Most parts that a number is put together from, and most words of a line that are looked at. */
const MOST_PARTS = 4;
const MOST_WORDS = 120;
/** Shorter ones stand for too much: days, years, quantities. */
const SHORTEST = 4;

/** A number or a reference without what parts it: `INV-2026-0001` → `INV20260001`. */
export function bareNumber(text: string): string {
  return plain(text).replace(/[^A-Z0-9]/g, '');
}

/**
 * All that may be a number in a line, however it was parted: `INV 2026 1`, `inv2026-0001`. Neighbouring words are put
 * together, so that a number is found by its bare form.
 */
export function numbersIn(...texts: readonly string[]): ReadonlySet<string> {
  const found = new Set<string>();
  for (const text of texts) {
    const words = plain(text)
      .split(/[^A-Z0-9]+/)
      .filter(Boolean)
      .slice(0, MOST_WORDS);
    words.forEach((_, from) => {
      for (let parts = 1; parts <= MOST_PARTS && from + parts <= words.length; parts++) {
        const bare = words.slice(from, from + parts).join('');
        if (bare.length >= SHORTEST && /\d/.test(bare)) found.add(bare);
      }
    });
  }
  return found;
}

/** Ways a number of ours is written by others: whole, its figures alone, and without the noughts before its last part. */
export function waysToWrite(number: string): readonly string[] {
  const parts = plain(number)
    .split(/[^A-Z0-9]+/)
    .filter(Boolean);
  const short = parts.map((part, i) => (i === parts.length - 1 ? part.replace(/^0+(?=\d)/, '') : part));
  const figures = (from: readonly string[]) => from.filter((part) => /^\d+$/.test(part)).join('');
  const ways = [parts.join(''), figures(parts), short.join(''), figures(short)];
  return [...new Set(ways)].filter((way) => way.length >= SHORTEST);
}
