import { inStep } from '@/core/documents/bookFigures';
import { type IssuedDocument, settled } from '@/core/documents/issued';
import type { Currency } from '@/core/kernel/currency';
import type { IsoDate } from '@/core/kernel/date';
import { type Minor, minor, minus, NOTHING, negated } from '@/core/kernel/money';
import type { Receipt } from './receipt';

/** What became of an allocation that was taken back. */
export interface Undone {
  readonly on: IsoDate;
  /** Instant. */
  readonly at: string;
  /** As those of the allocation. */
  readonly turn: number;
  readonly creditTurn: number;
  /** Entries that took back what it had posted. */
  readonly entryIds: readonly string[];
}

/** How a debt is closed by an account instead of a credit. */
export interface Closing {
  /** Code of the account it is closed to. */
  readonly account: string;
  /** Allocation that it goes with, and is undone with; empty where it stands for itself. */
  readonly withId: string;
  /** Output tax of it is taken back in a return. */
  readonly relief: boolean;
  readonly reason: string;
}

/**
 * A credit (a receipt or a credit note) brought together with a debt (an invoice, an opening item, a refund) of one customer and
 * one currency. A record of its own: it is never changed but for being undone.
 */
export interface Allocation {
  readonly id: string;
  readonly customerId: string;
  readonly creditKind: 'receipt' | 'credit-note' | 'difference' | 'write-off';
  /** Its own id where nothing but an account closes the debt: a small difference, or a write-off. */
  readonly creditId: string;
  readonly creditNumber: string;
  /** A refund is a debt that its credit settles at once. */
  readonly debtKind: 'document' | 'refund';
  readonly debtId: string;
  readonly debtNumber: string;
  readonly date: IsoDate;
  readonly currency: Currency;
  /** What goes of both, in their currency. */
  readonly amount: Minor;
  /** What goes of the debt as it stands on receivables, in home currency. */
  readonly debtHome: Minor;
  /** The same of the credit; what differs is one of exchange. */
  readonly creditHome: Minor;
  /** The credit note is one on this very invoice: it takes the invoice back rather than pay it. */
  readonly takesBack: boolean;
  /** Of a difference or a write-off: how it closes the debt. */
  readonly closing?: Closing;
  /** Entries that hold what it posted: differences of exchange, and tax that fell due. */
  readonly entryIds: readonly string[];
  /** Instant it was made. */
  readonly at: string;
  /** Place among all that was made and undone with its debt, from 0: instants may be the same. */
  readonly turn: number;
  /** The same with its credit. */
  readonly creditTurn: number;
  /** Kept for the index: day it was undone; empty while it stands. */
  readonly undoneOn: IsoDate | '';
  readonly undone: Undone | null;
}

/** What we hold for a customer, above zero: money on account, or a credit note. */
export type Credit =
  | { readonly kind: 'receipt'; readonly receipt: Receipt }
  | { readonly kind: 'credit-note'; readonly note: IssuedDocument };

/** What a credit is and what is left of it, above zero, in its currency and as it stands on receivables. */
export function leftOfCredit(credit: Credit): {
  readonly id: string;
  readonly number: string;
  readonly customerId: string;
  readonly currency: Currency;
  readonly open: Minor;
  readonly openHome: Minor;
} {
  if (credit.kind === 'receipt') return credit.receipt;
  const { id, number, customerId, content, open, openHome } = credit.note;
  return { id, number, customerId, currency: content.currency, open: negated(open), openHome: negated(openHome) };
}

/** True where the credit note is one on this invoice. */
export function takesBack(credit: Credit, debtId: string): boolean {
  return credit.kind === 'credit-note' && credit.note.content.corrects?.documentId === debtId;
}

/** What goes on receivables with a part of what is open; the last part takes all that is left. */
export function homePart(amount: Minor, { open, openHome }: Pick<Receipt, 'open' | 'openHome'>): Minor {
  return inStep(amount, open, openHome);
}

type Moved = Pick<Allocation, 'creditKind' | 'amount' | 'debtHome' | 'creditHome' | 'takesBack'>;

const back = (moved: Moved): Moved => ({
  ...moved,
  amount: negated(moved.amount),
  debtHome: negated(moved.debtHome),
  creditHome: negated(moved.creditHome),
});

/** The debt after the allocation. */
export function debtAfter(debt: IssuedDocument, moved: Moved): IssuedDocument {
  const by = moved.creditKind === 'write-off' ? 'writtenOff' : moved.takesBack ? 'credited' : 'received';
  return settled(debt, by, moved.amount, moved.debtHome);
}

/** The credit after the allocation. */
export function creditAfter(credit: Credit, { amount, creditHome, takesBack: own }: Moved): Credit {
  if (credit.kind === 'credit-note') {
    const note = settled(credit.note, own ? 'credited' : 'received', negated(amount), negated(creditHome));
    return { kind: 'credit-note', note };
  }
  const open = minus(credit.receipt.open, amount);
  const openHome = minus(credit.receipt.openHome, creditHome);
  return { kind: 'receipt', receipt: { ...credit.receipt, open, openHome, isOpen: open === NOTHING ? 0 : 1 } };
}

/** The debt as it was before the allocation, whatever has happened to it since. */
export function debtBefore(debt: IssuedDocument, allocation: Moved): IssuedDocument {
  return debtAfter(debt, back(allocation));
}

/** The credit as it was before the allocation, whatever has happened to it since. */
export function creditBefore(credit: Credit, allocation: Moved): Credit {
  return creditAfter(credit, back(allocation));
}

/** What an allocation leaves on receivables, to be moved to exchange differences; nothing in home currency. */
export function differenceOf({ debtHome, creditHome }: Pick<Moved, 'debtHome' | 'creditHome'>): Minor {
  return minor(debtHome - creditHome);
}

/** Of allocations with one debt: those that stand, newest first. */
export function standing(allocations: readonly Allocation[]): readonly Allocation[] {
  return allocations.filter(({ undone }) => undone === null).sort((a, b) => b.turn - a.turn);
}

/** The next turns among all that was made and undone with a debt, and with a credit. */
export function nextTurns(
  ofDebt: readonly Allocation[],
  ofCredit: readonly Allocation[],
): Pick<Allocation, 'turn' | 'creditTurn'> {
  const after = (all: readonly Allocation[], key: 'turn' | 'creditTurn') =>
    all.reduce((next, one) => Math.max(next, one[key] + 1, (one.undone?.[key] ?? -1) + 1), 0);
  return { turn: after(ofDebt, 'turn'), creditTurn: after(ofCredit, 'creditTurn') };
}
