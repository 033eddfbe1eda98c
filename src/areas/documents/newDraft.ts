import type { DraftKind } from '@/core/documents/kinds';
import { routes } from '../shell/routes';

/** The address of a draft that is yet to be written. */
export function newDraftPath(kind: DraftKind = 'invoice'): string {
  return routes.newDraft(crypto.randomUUID(), kind);
}
