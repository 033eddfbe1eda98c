import 'fake-indexeddb/auto';
import type { Refusal } from '@/core/kernel/result';
import { openArchive } from '@/store/openArchive';
import { BookDb } from '@/store/schema';
import { readFile } from './readFile';

/** 1 GiB: more than any book file may unpack to. */
const LARGEST = 2 ** 30;

/** A book file as a command finds it: open in memory, not readable at all, or refused by its checks. */
export type FoundBook =
  | { readonly kind: 'open'; readonly db: BookDb }
  | { readonly kind: 'unreadable'; readonly words: string }
  | { readonly kind: 'refused'; readonly refusals: readonly Refusal[] };

export async function openBookFile(file: string): Promise<FoundBook> {
  const bytes = readFile(file, LARGEST);
  if (bytes === null) return { kind: 'unreadable', words: 'the file cannot be read' };
  if (bytes.length > LARGEST) return { kind: 'unreadable', words: 'the file is too large' };
  const db = new BookDb('command');
  const opened = await openArchive(db, bytes);
  return opened.ok ? { kind: 'open', db } : { kind: 'refused', refusals: opened.refusals };
}
