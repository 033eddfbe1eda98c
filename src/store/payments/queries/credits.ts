import type { IssuedDocument } from '@/core/documents/issued';
import { KINDS } from '@/core/documents/kinds';
import type { Credit } from '@/core/settlement/allocation';
import type { Receipt } from '@/core/settlement/receipt';

/** A receipt or a credit note as what it holds for the customer. */
export function creditOf(receipt: Receipt | undefined, document: IssuedDocument | undefined): Credit | undefined {
  if (receipt !== undefined) return { kind: 'receipt', receipt };
  return document !== undefined && KINDS[document.kind].creditsOwed
    ? { kind: 'credit-note', note: document }
    : undefined;
}
