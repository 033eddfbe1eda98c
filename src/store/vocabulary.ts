import { wordEndings } from '@/core/kernel/words';

/** A word that documents hold, and how many. Kept, so that any part of a word leads to its documents. */
export interface VocabularyWord {
  readonly word: string;
  readonly count: number;
  readonly endings: readonly string[];
}

export interface Worded {
  readonly words: readonly string[];
}

/** Adds to counts of words how many of some rows hold each. */
export function addWordCounts(counts: Map<string, number>, rows: readonly Worded[]): void {
  for (const { words } of rows) for (const word of words) counts.set(word, (counts.get(word) ?? 0) + 1);
}

/** How many of some rows hold each word. */
export function wordCounts(rows: readonly Worded[]): Map<string, number> {
  const found = new Map<string, number>();
  addWordCounts(found, rows);
  return found;
}

/** The vocabulary of a whole book, from how many documents hold each word. */
export function vocabularyOf(counts: ReadonlyMap<string, number>): readonly VocabularyWord[] {
  return [...counts].map(([word, count]) => ({ word, count, endings: wordEndings(word) }));
}
