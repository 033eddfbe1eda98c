const LONGEST_KEY = 14;
const LONGEST_WORD = 40;
const SHORTEST_KEY = 2;

/** Lower case without accents, so that `Ü` is found by `u`. */
function plain(text: string): string {
  return text
    .normalize('NFD')
    .replace(/\p{Mn}/gu, '')
    .toLowerCase();
}

/** An amount as it is written, with or without thousands marks, or a run of letters and digits. */
const WORD = /\d{1,3}(?:,\d{3})+\.\d+|\d+\.\d{2,4}(?![\p{L}\p{N}])|[\p{L}\p{N}]+/gu;

/** The words of a text as they are compared: letters and digits only, amounts whole as `1234.50`. */
export function wordsOf(text: string): string[] {
  return (plain(text).match(WORD) ?? []).map((word) => (word.includes('.') ? word.replaceAll(',', '') : word));
}

/** The distinct words of some texts, in order of first appearance. */
export function wordsIn(texts: readonly string[]): string[] {
  return [...new Set(texts.flatMap(wordsOf))].map((word) => word.slice(0, LONGEST_WORD));
}

/**
 * Keys under which a record is found by any part of any word: every ending of each word, so that
 * "begins with" on the keys means "contains" on the words. `Harbour` gives harbour, arbour, …, ur.
 */
export function searchKeys(texts: readonly string[]): string[] {
  const keys = new Set<string>();
  for (const word of texts.flatMap(wordsOf)) for (const ending of wordEndings(word)) keys.add(ending);
  return [...keys];
}

/** The endings by which any part of a word is found with "begins with". */
export function wordEndings(word: string): string[] {
  const endings: string[] = [];
  for (let i = 0; i === 0 || i <= word.length - SHORTEST_KEY; i++) endings.push(word.slice(i, i + LONGEST_KEY));
  return endings;
}

/** The parts of a search as keys to look for; a record must hold each of them. */
export function searchParts(query: string): string[] {
  return wordsOf(query).map((word) => word.slice(0, LONGEST_KEY));
}

/** True when every part of the query begins one of the record's keys. */
export function holdsParts(keys: readonly string[], parts: readonly string[]): boolean {
  return parts.every((part) => keys.some((key) => key.startsWith(part)));
}

/** True when every part of the query stands in one of the record's words. */
export function wordsHold(words: readonly string[], parts: readonly string[]): boolean {
  return parts.every((part) => words.some((word) => word.includes(part)));
}
