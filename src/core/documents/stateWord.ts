import type { IsoDate } from '@/core/kernel/date';
import { type DocumentState, type IssuedDocument, isLapsed, isOverdue } from './issued';

const WORDS: Readonly<Record<DocumentState, string>> = {
  issued: 'issued',
  'part-paid': 'part-paid',
  paid: 'paid',
  credited: 'credited',
  'written-off': 'written off',
  cancelled: 'cancelled',
  sent: 'sent',
  accepted: 'accepted',
  declined: 'declined',
  replaced: 'replaced',
  'part-invoiced': 'invoiced in part',
  invoiced: 'invoiced',
};

/** How far a document is settled on a day, or what became of a quote, in words: `overdue, part-paid`. */
export function stateWord(document: IssuedDocument, today: IsoDate): string {
  const { kind, state } = document;
  if (isLapsed(document, today)) return 'lapsed';
  if (isOverdue(document, today)) return state === 'part-paid' ? 'overdue, part-paid' : 'overdue';
  return kind === 'credit-note' && state === 'credited' ? 'set off' : WORDS[state];
}
