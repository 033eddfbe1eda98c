import { type DocumentState, type IssuedDocument, isLapsed, isOverdue, quartersPaid } from '@/core/documents/issued';
import type { DocumentKind } from '@/core/documents/kinds';
import { stateWord } from '@/core/documents/stateWord';
import type { IsoDate } from '@/core/kernel/date';
import type { MarkKind } from '@/ui/Mark';

/** By quarters settled; what is begun at all shows at least a quarter. */
const PARTS: readonly MarkKind[] = ['quarter', 'quarter', 'half', 'most', 'paid'];

const MARKS: Partial<Record<DocumentState, MarkKind>> = {
  accepted: 'good',
  declined: 'cancelled',
  replaced: 'cancelled',
  'part-invoiced': 'half',
  invoiced: 'paid',
  cancelled: 'cancelled',
  credited: 'cancelled',
  paid: 'paid',
};

function markKind(document: IssuedDocument, today: IsoDate): MarkKind {
  const { kind, state } = document;
  if (isLapsed(document, today)) return 'warning';
  if (isOverdue(document, today)) return 'overdue';
  if (state === 'part-paid') return PARTS[quartersPaid(document)] ?? 'most';
  return kind === 'credit-note' && state === 'credited' ? 'paid' : (MARKS[state] ?? 'issued');
}

/** What kinds of documents are called. */
export const KIND_WORDS: Readonly<Record<DocumentKind, string>> = {
  quote: 'quote',
  invoice: 'invoice',
  'credit-note': 'credit note',
  takings: 'takings',
  opening: 'opening invoice',
};

/** Mark and word for how far a document is settled on a day, or what became of a quote. */
export function documentMark(document: IssuedDocument, today: IsoDate): { kind: MarkKind; word: string } {
  return { kind: markKind(document, today), word: stateWord(document, today) };
}
