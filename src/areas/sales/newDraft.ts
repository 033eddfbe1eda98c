import type { DraftKind } from '@/core/documents/draft';

/** The address of a draft that is yet to be written. */
export function newDraftPath(kind: DraftKind = 'invoice'): string {
  return `/sales/draft/${crypto.randomUUID()}?new=${kind}`;
}
