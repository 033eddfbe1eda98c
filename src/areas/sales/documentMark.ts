import type { DocumentKind } from '@/core/documents/content';
import { type DocumentState, type IssuedDocument, isLapsed, isOverdue, quartersPaid } from '@/core/documents/issued';
import type { IsoDate } from '@/core/kernel/date';
import type { MarkKind } from '@/ui/Mark';

/** By quarters settled; what is begun at all shows at least a quarter. */
const PARTS: readonly MarkKind[] = ['quarter', 'quarter', 'half', 'most', 'paid'];

const QUOTE_MARKS: Partial<Record<DocumentState, readonly [MarkKind, string]>> = {
  sent: ['issued', 'sent'],
  accepted: ['good', 'accepted'],
  declined: ['cancelled', 'declined'],
  replaced: ['cancelled', 'replaced'],
  'part-invoiced': ['half', 'invoiced in part'],
  invoiced: ['paid', 'invoiced'],
};

/** What kinds of documents are called. */
export const KIND_WORDS: Readonly<Record<DocumentKind, string>> = {
  quote: 'quote',
  invoice: 'invoice',
  'credit-note': 'credit note',
  takings: 'takings',
  opening: 'opening item',
};

/** Mark and word for how far a document is settled on a day, or what became of a quote. */
export function documentMark(document: IssuedDocument, today: IsoDate): { kind: MarkKind; word: string } {
  const { state } = document;
  const quoted = QUOTE_MARKS[state];
  if (isLapsed(document, today)) return { kind: 'warning', word: 'lapsed' };
  if (quoted !== undefined) return { kind: quoted[0], word: quoted[1] };
  if (state === 'cancelled') return { kind: 'cancelled', word: 'cancelled' };
  if (state === 'credited')
    return document.kind === 'credit-note'
      ? { kind: 'paid', word: 'set off' }
      : { kind: 'cancelled', word: 'credited' };
  if (state === 'paid') return { kind: 'paid', word: 'paid' };
  if (isOverdue(document, today))
    return { kind: 'overdue', word: state === 'part-paid' ? 'overdue, part-paid' : 'overdue' };
  if (state === 'part-paid') return { kind: PARTS[quartersPaid(document)] ?? 'most', word: 'part-paid' };
  return { kind: 'issued', word: 'issued' };
}
