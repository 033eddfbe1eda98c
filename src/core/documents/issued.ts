import type { IsoDate } from '@/core/kernel/date';
import { type Minor, minor, NOTHING } from '@/core/kernel/money';
import type { CalcResult } from '@/core/tax/calcTypes';
import { type Content, type DocumentKind, signed } from './content';
import type { Seal } from './seal';
import { withheldOnIssue } from './withhold';

/** An issued document: sealed content and figures, and the settlement that moves on. */
export interface IssuedDocument {
  readonly id: string;
  readonly kind: DocumentKind;
  readonly number: string;
  readonly customerId: string;
  readonly customerName: string;
  readonly issueDate: IsoDate;
  readonly dueDate: IsoDate;
  readonly content: Content;
  readonly figures: CalcResult;
  readonly seal: Seal;
  /** Position in its series, from 1. */
  readonly position: number;
  /** Id of the tax period that reports it. */
  readonly periodId: string;
  /** Its own period was filed already, so a later one reports it. */
  readonly late: boolean;
  readonly entryId: string;
  readonly issuedAt: string;
  /** Still to be settled, signed: above zero the customer owes us. */
  readonly open: Minor;
  readonly received: Minor;
  /** Taken back by credit notes. */
  readonly credited: Minor;
  /** The credit note that took it back whole, or null. */
  readonly creditNote: { readonly id: string; readonly number: string } | null;
  /** 1 while something is open: database indexes hold no booleans. */
  readonly isOpen: 0 | 1;
  readonly keys: readonly string[];
}

export type DocumentState = 'issued' | 'part-paid' | 'paid' | 'credited';

/** State by settlement. Overdue is asked apart, as it depends on the day. */
export function stateOf(document: Pick<IssuedDocument, 'open' | 'received' | 'credited'>): DocumentState {
  if (document.open === 0n) return document.received === 0n && document.credited !== 0n ? 'credited' : 'paid';
  return document.received !== 0n || document.credited !== 0n ? 'part-paid' : 'issued';
}

/** True for an open invoice whose due date has passed. */
export function isOverdue(document: Pick<IssuedDocument, 'kind' | 'open' | 'dueDate'>, today: IsoDate): boolean {
  return document.kind === 'invoice' && document.open > 0n && document.dueDate < today;
}

/** Quarters of the total that are settled, 0 to 4, for the mark of a part-paid document. */
export function quartersPaid(document: Pick<IssuedDocument, 'open' | 'figures'>): number {
  const all = document.figures.totals.payable;
  if (all === 0n) return 4;
  const paid = all - (document.open < 0n ? -document.open : document.open);
  return Number((4n * paid) / all);
}

/** Gross as it counts in the customer's account: credit notes count down. */
export function owedOf(content: Content, figures: CalcResult): Minor {
  return signed(content, minor(figures.totals.payable - withheldOnIssue(content.withholding ?? [], figures)));
}

/** The document after `amount` of it was settled by money or by a credit note. */
export function settled(document: IssuedDocument, by: 'received' | 'credited', amount: Minor): IssuedDocument {
  const open = (document.open - amount) as Minor;
  return {
    ...document,
    open,
    isOpen: open === NOTHING ? 0 : 1,
    [by]: (document[by] + amount) as Minor,
  };
}
