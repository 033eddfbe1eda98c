const LONGEST_KEY = 14;
const SHORTEST_KEY = 2;

/** Lower case without accents, so that `Ü` is found by `u`. */
function plain(text: string): string {
  return text
    .normalize('NFD')
    .replace(/\p{Mn}/gu, '')
    .toLowerCase();
}

/** The words of a text as they are compared: letters and digits only. */
export function wordsOf(text: string): string[] {
  return plain(text).match(/[\p{L}\p{N}]+/gu) ?? [];
}

/**
 * Keys under which a record is found by any part of any word: every ending of each word, so that
 * "begins with" on the keys means "contains" on the words. `Harbour` gives harbour, arbour, …, ur.
 */
export function searchKeys(texts: readonly string[]): string[] {
  const keys = new Set<string>();
  for (const word of texts.flatMap(wordsOf)) {
    if (word.length < SHORTEST_KEY) keys.add(word);
    for (let i = 0; i <= word.length - SHORTEST_KEY; i++) keys.add(word.slice(i, i + LONGEST_KEY));
  }
  return [...keys];
}

/** The parts of a search as keys to look for; a record must hold each of them. */
export function searchParts(query: string): string[] {
  return wordsOf(query).map((word) => word.slice(0, LONGEST_KEY));
}

/** True when every part of the query begins one of the record's keys. */
export function holdsParts(keys: readonly string[], parts: readonly string[]): boolean {
  return parts.every((part) => keys.some((key) => key.startsWith(part)));
}
