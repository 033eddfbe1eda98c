import { wordEndings } from '@/core/kernel/words';
import type { BookDb, VocabularyWord } from './schema';

interface Worded {
  readonly words: readonly string[];
}

/** How many of some rows hold each word. */
function counts(rows: readonly Worded[]): Map<string, number> {
  const found = new Map<string, number>();
  for (const { words } of rows) for (const word of words) found.set(word, (found.get(word) ?? 0) + 1);
  return found;
}

/** The vocabulary of a whole book. */
export function vocabularyOf(rows: readonly Worded[]): readonly VocabularyWord[] {
  return [...counts(rows)].map(([word, count]) => ({ word, count, endings: wordEndings(word) }));
}

/** Counts the words of documents that are written over others; `before` holds those that were there. */
export async function moveVocabulary(
  db: BookDb,
  after: readonly Worded[],
  before: readonly (Worded | undefined)[],
): Promise<void> {
  const moved = counts(after);
  for (const [word, count] of counts(before.filter((row) => row !== undefined)))
    moved.set(word, (moved.get(word) ?? 0) - count);
  const words = [...moved].filter(([, by]) => by !== 0);
  if (words.length === 0) return;
  const rows = await db.vocabulary.bulkGet(words.map(([word]) => word));
  await db.vocabulary.bulkPut(
    words.map(([word, by], i) => ({
      word,
      count: (rows[i]?.count ?? 0) + by,
      endings: rows[i]?.endings ?? wordEndings(word),
    })),
  );
}
