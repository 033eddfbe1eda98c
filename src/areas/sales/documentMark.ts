import { type IssuedDocument, isOverdue, quartersPaid, stateOf } from '@/core/documents/issued';
import type { IsoDate } from '@/core/kernel/date';
import type { MarkKind } from '@/ui/Mark';

/** By quarters settled; what is begun at all shows at least a quarter. */
const PARTS: readonly MarkKind[] = ['quarter', 'quarter', 'half', 'most', 'paid'];

/** Mark and word for how far a document is settled on a day. */
export function documentMark(document: IssuedDocument, today: IsoDate): { kind: MarkKind; word: string } {
  const state = stateOf(document);
  if (state === 'credited')
    return document.kind === 'invoice' ? { kind: 'cancelled', word: 'credited' } : { kind: 'paid', word: 'set off' };
  if (state === 'paid') return { kind: 'paid', word: 'paid' };
  if (isOverdue(document, today))
    return { kind: 'overdue', word: state === 'part-paid' ? 'overdue, part-paid' : 'overdue' };
  if (state === 'part-paid') return { kind: PARTS[quartersPaid(document)] ?? 'most', word: 'part-paid' };
  return { kind: 'issued', word: 'issued' };
}
