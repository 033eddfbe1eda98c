import type { Draft } from '@/core/documents/draft';
import { forgetText, keepText, keptText } from '@/ui/kept';

/*
 * A copy of a draft beside the book. The database can't be written while a page closes; the browser's own
 * store can, at once. What was typed in the last moment is found there when the draft is opened again.
 */

const keyOf = (id: string): string => `able-draft-${id}`;

/** Whether the copy could be kept. */
export function keepSideCopy(draft: Draft): boolean {
  return keepText(keyOf(draft.id), JSON.stringify(draft));
}

export function dropSideCopy(id: string): void {
  forgetText(keyOf(id));
}

/** The copy of a draft, where it says more than what the book holds: it follows on the stored revision. */
export function sideCopyOf(id: string, stored: Draft | undefined): Draft | null {
  const text = keptText(keyOf(id));
  if (text === null) return null;
  try {
    const copy = JSON.parse(text) as Partial<Draft> | null;
    const follows = copy?.id === id && copy.revision === (stored?.revision ?? 0) && Array.isArray(copy.lines);
    if (follows) return copy as Draft;
  } catch {
    // A text that is no copy of ours is none.
  }
  dropSideCopy(id);
  return null;
}
