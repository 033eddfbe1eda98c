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

/** How many of some rows hold each word. */
export function wordCounts(rows: readonly Worded[]): Map<string, number> {
  const found = new Map<string, number>();
  for (const { words } of rows) for (const word of words) found.set(word, (found.get(word) ?? 0) + 1);
  return found;
}

/** The vocabulary of a whole book. */
export function vocabularyOf(rows: readonly Worded[]): readonly VocabularyWord[] {
  return [...wordCounts(rows)].map(([word, count]) => ({ word, count, endings: wordEndings(word) }));
}
