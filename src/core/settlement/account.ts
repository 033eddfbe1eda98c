import { type IssuedDocument, owedOf } from '@/core/documents/issued';
import { KINDS } from '@/core/documents/kinds';
import type { Currency } from '@/core/kernel/currency';
import { daysBetween, type IsoDate } from '@/core/kernel/date';
import { ratioOf } from '@/core/kernel/decimal';
import { type Minor, minor, minus, NOTHING, negated, plus, total } from '@/core/kernel/money';
import { share } from '@/core/kernel/share';
import type { Allocation } from './allocation';
import type { Receipt } from './receipt';
import type { Refund } from './refund';

/** What stands behind a customer's account, in all currencies. */
export interface AccountRows {
  readonly documents: readonly IssuedDocument[];
  readonly receipts: readonly Receipt[];
  readonly refunds: readonly Refund[];
  readonly allocations: readonly Allocation[];
}

/** What happened on an account: a debit, above zero, is owed by the customer. */
export type AccountEvent =
  | 'invoice'
  | 'opening'
  | 'credit-note'
  | 'receipt'
  | 'dishonoured'
  | 'refund'
  | 'refund-undone'
  | 'write-off'
  | 'write-off-undone'
  | 'difference'
  | 'difference-undone'
  | 'settled-by'
  | 'settled-by-undone'
  | 'used-for'
  | 'used-for-undone';

/** What happened on an account, in words. */
export const EVENT_WORDS: Readonly<Record<AccountEvent, string>> = {
  invoice: 'Invoice',
  opening: 'Opening invoice',
  'credit-note': 'Credit note',
  receipt: 'Receipt',
  dishonoured: 'Payment returned unpaid',
  refund: 'Refund',
  'refund-undone': 'Refund cancelled',
  'write-off': 'Written off',
  'write-off-undone': 'Write-off cancelled',
  difference: 'Difference closed',
  'difference-undone': 'Difference cancelled',
  'settled-by': 'Settled by',
  'settled-by-undone': 'No longer settled by',
  'used-for': 'Used for',
  'used-for-undone': 'No longer used for',
};

export interface AccountMove {
  readonly date: IsoDate;
  readonly event: AccountEvent;
  readonly number: string;
  /** Id of the document or receipt behind it, or empty. */
  readonly id: string;
  readonly kind: 'document' | 'receipt';
  readonly reference: string;
  /** Day on which a document is due; empty for all else. */
  readonly due: IsoDate | '';
  readonly amount: Minor;
}

const inOrder = (a: AccountMove, b: AccountMove): number =>
  a.date === b.date ? (a.number < b.number ? -1 : a.number > b.number ? 1 : 0) : a.date < b.date ? -1 : 1;

/** A move with whose account it moved. */
export interface CustomerMove extends AccountMove {
  readonly customerId: string;
  readonly currency: Currency;
}

/** What documents, receipts and refunds moved accounts by; a cheque that is dated later on its own day. */
function ownMoves({ documents, receipts, refunds }: Omit<AccountRows, 'allocations'>): CustomerMove[] {
  const moves: CustomerMove[] = [];
  for (const { id, customerId, kind: own, number, issueDate, dueDate, content, figures, cancelled } of documents) {
    const { owed, creditsOwed } = KINDS[own];
    if (cancelled !== null || !(owed || creditsOwed)) continue;
    const event = own === 'credit-note' || own === 'opening' ? own : 'invoice';
    const reference = content.orderNumber || content.buyerReference;
    const due = owed ? (content.instalments?.at(-1)?.due ?? dueDate) : '';
    const row = { customerId, currency: content.currency, number, id, kind: 'document', reference, due } as const;
    moves.push({ ...row, date: issueDate, event, amount: owedOf(content, figures) });
  }
  for (const { id, customerId, currency, number, valueDate, amount, reference, dishonoured } of receipts) {
    const row = { customerId, currency, number, id, kind: 'receipt', reference, due: '' } as const;
    moves.push({ ...row, date: valueDate, event: 'receipt', amount: negated(amount) });
    if (dishonoured !== null) moves.push({ ...row, date: dishonoured.on, event: 'dishonoured', amount });
  }
  for (const { customerId, currency, number, date, amount, reference, undone } of refunds) {
    const row = { customerId, currency, number, id: '', kind: 'document', reference, due: '' } as const;
    moves.push({ ...row, date, event: 'refund', amount });
    if (undone !== null) moves.push({ ...row, date: undone.on, event: 'refund-undone', amount: negated(amount) });
  }
  return moves;
}

/** What an account closed of debts: bad debts and small differences. Those of `customerOf` a debt's id; others are passed over. */
function closingMoves(
  allocations: readonly Allocation[],
  customerOf: (debtId: string) => string | undefined,
): CustomerMove[] {
  return allocations.flatMap(({ creditKind, debtId, debtNumber, date, amount, undone, currency }): CustomerMove[] => {
    const customerId = customerOf(debtId);
    if (customerId === undefined || (creditKind !== 'write-off' && creditKind !== 'difference')) return [];
    const row = {
      customerId,
      currency,
      number: debtNumber,
      id: debtId,
      kind: 'document',
      reference: '',
      due: '',
    } as const;
    const made: CustomerMove = { ...row, date, event: creditKind, amount: negated(amount) };
    return undone === null ? [made] : [made, { ...row, date: undone.on, event: `${creditKind}-undone`, amount }];
  });
}

/**
 * What the money or the credit note of one customer of a group settled of another's: it leaves the account of one and reaches
 * that of the other. Of an account that `customerOf` does not know nothing is told.
 */
function groupMoves(
  allocations: readonly Allocation[],
  customerOf: (id: string) => string | undefined,
): CustomerMove[] {
  return allocations.flatMap((one): CustomerMove[] => {
    const { creditKind, creditId, creditNumber, debtKind, debtId, debtNumber, currency, date, amount, undone } = one;
    if (creditKind === 'write-off' || creditKind === 'difference') return [];
    const [from, to] = [customerOf(creditId), customerOf(debtId)];
    if (from === to) return [];
    const both = (on: IsoDate, by: Minor, undo: '' | '-undone'): CustomerMove[] => {
      const row = { currency, date: on, reference: '', due: '' } as const;
      const kind = creditKind === 'receipt' ? 'receipt' : 'document';
      const [credit, debt] = [
        { id: creditId, kind, number: creditNumber } as const,
        { id: debtKind === 'document' ? debtId : '', kind: 'document', number: debtNumber } as const,
      ];
      return [
        ...(to === undefined
          ? []
          : [{ ...row, ...credit, customerId: to, event: `settled-by${undo}` as const, amount: negated(by) }]),
        ...(from === undefined
          ? []
          : [{ ...row, ...debt, customerId: from, event: `used-for${undo}` as const, amount: by }]),
      ];
    };
    return [...both(date, amount, ''), ...(undone === null ? [] : both(undone.on, negated(amount), '-undone'))];
  });
}

/** Everything that moved the accounts of customers, by day. Names of `customerOf` whose a document, a receipt or a refund is. */
export function customerMoves(
  rows: AccountRows,
  customerOf: (id: string) => string | undefined,
): readonly CustomerMove[] {
  const { allocations } = rows;
  return [...ownMoves(rows), ...closingMoves(allocations, customerOf), ...groupMoves(allocations, customerOf)].sort(
    inOrder,
  );
}

/** Everything that moved an account in a currency, by day; of several customers together where the rows are theirs. */
export function accountMoves(rows: AccountRows, currency: Currency): readonly AccountMove[] {
  const own = new Set([...rows.documents, ...rows.receipts, ...rows.refunds].map(({ id }) => id));
  return customerMoves(rows, (id) => (own.has(id) ? '' : undefined))
    .filter((move) => move.currency === currency)
    .map(({ customerId: _, currency: __, ...move }) => move);
}

/** An account from a day to another: what stood before, and each move with the balance after it. */
export interface Statement {
  readonly opening: Minor;
  readonly moves: readonly (AccountMove & { readonly balance: Minor })[];
  readonly closing: Minor;
}

export function statementOf(moves: readonly AccountMove[], from: IsoDate | '', until: IsoDate): Statement {
  const opening = total(moves.filter(({ date }) => from !== '' && date < from).map(({ amount }) => amount));
  let balance = opening;
  const within = moves
    .filter(({ date }) => (from === '' || date >= from) && date <= until)
    .map((move) => {
      balance = plus(balance, move.amount);
      return { ...move, balance };
    });
  return { opening, moves: within, closing: balance };
}

/** Something open on a day: above zero what is owed, below what is held for the customer. */
export interface OpenItem {
  readonly id: string;
  readonly kind: 'document' | 'receipt';
  readonly number: string;
  readonly customerId: string;
  readonly currency: Currency;
  readonly date: IsoDate;
  readonly due: IsoDate;
  readonly reference: string;
  /** What it was in all. */
  readonly amount: Minor;
  readonly open: Minor;
  /** What of it falls due when; of a debt only. */
  readonly parts: readonly { readonly due: IsoDate; readonly amount: Minor }[];
}

/** What of an open amount is due when: what is settled covers the earliest instalments. */
export function dueParts(
  { content, figures, dueDate }: Pick<IssuedDocument, 'content' | 'figures' | 'dueDate'>,
  open: Minor,
): OpenItem['parts'] {
  const { instalments = [] } = content;
  if (instalments.length === 0) return [{ due: content.dueDate || dueDate, amount: open }];
  const owed = owedOf(content, figures);
  const amounts = share(
    owed,
    instalments.map(({ percent }) => {
      const { n, d } = ratioOf(percent);
      return (n * 1_000_000n) / d;
    }),
  );
  let settled = minus(owed, open);
  return instalments.flatMap(({ due }, i) => {
    const all = minor(amounts[i] ?? 0n);
    const covered = settled < all ? settled : all;
    settled = minus(settled, covered);
    const left = minus(all, covered);
    return left > 0n ? [{ due, amount: left }] : [];
  });
}

/** What of each debt and credit is open at the end of a day; allocations made later, and undone later, do not count yet. */
export function openItemsOn(rows: AccountRows, on: IsoDate): readonly OpenItem[] {
  const settled = new Map<string, Minor>();
  const move = (id: string, amount: Minor) => settled.set(id, plus(settled.get(id) ?? NOTHING, amount));
  for (const { date, undone, debtId, creditId, amount } of rows.allocations) {
    if (date > on || (undone !== null && undone.on <= on)) continue;
    move(debtId, amount);
    move(creditId, amount);
  }
  const items: OpenItem[] = [];
  for (const document of rows.documents) {
    const { id, kind, number, customerId, issueDate, content, figures, cancelled } = document;
    const { owed, creditsOwed } = KINDS[kind];
    if (!(owed || creditsOwed) || cancelled !== null || issueDate > on) continue;
    const amount = owedOf(content, figures);
    const used = settled.get(id) ?? NOTHING;
    const open = owed ? minus(amount, used) : plus(amount, used);
    if (open === NOTHING) continue;
    const parts = owed ? dueParts(document, open) : [];
    items.push({
      id,
      kind: 'document',
      number,
      customerId,
      currency: content.currency,
      date: issueDate,
      due: parts[0]?.due ?? issueDate,
      reference: content.orderNumber || content.buyerReference,
      amount,
      open,
      parts,
    });
  }
  for (const { id, number, customerId, currency, valueDate, amount, reference, dishonoured } of rows.receipts) {
    if (valueDate > on || (dishonoured !== null && dishonoured.on <= on)) continue;
    const left = minus(amount, settled.get(id) ?? NOTHING);
    if (left === NOTHING) continue;
    items.push({
      id,
      kind: 'receipt',
      number,
      customerId,
      currency,
      date: valueDate,
      due: valueDate,
      reference,
      amount: negated(amount),
      open: negated(left),
      parts: [],
    });
  }
  return items.sort((a, b) => (a.due + a.number < b.due + b.number ? -1 : 1));
}

/** Upper limits of days overdue that part the columns of an aged list; what lies beyond the last is the oldest. */
export type AgeLimits = readonly number[];

export const AGE_LIMITS: AgeLimits = [30, 60, 90];

/** What is owed by age: not yet due, then by each limit, then beyond the last; credits apart. */
export interface Aged {
  readonly columns: readonly Minor[];
  /** Money on account and open credit notes, below zero. */
  readonly held: Minor;
  /** All of it together. */
  readonly balance: Minor;
}

/** The column of a day due: 0 not yet due, then 1 for each limit, the last beyond all. */
export function ageOf(due: IsoDate, on: IsoDate, limits: AgeLimits): number {
  const overdue = daysBetween(due, on);
  if (overdue <= 0) return 0;
  const at = limits.findIndex((limit) => overdue <= limit);
  return at < 0 ? limits.length + 1 : at + 1;
}

/** Open items of one currency by age. */
export function agedOf(items: readonly OpenItem[], on: IsoDate, limits: AgeLimits = AGE_LIMITS): Aged {
  const columns: Minor[] = Array.from({ length: limits.length + 2 }, () => NOTHING);
  let held = NOTHING;
  for (const { open, parts } of items) {
    if (open < 0n) held = plus(held, open);
    for (const { due, amount } of parts) {
      const at = ageOf(due, on, limits);
      columns[at] = plus(columns[at] ?? NOTHING, amount);
    }
  }
  return { columns, held, balance: plus(total(columns), held) };
}

/** Heads of the columns of an aged list: `1–30`, …, `over 90`. The first, not yet due, is named by who shows it. */
export function ageHeads(limits: AgeLimits): readonly string[] {
  return [...limits.map((limit, i) => `${(limits[i - 1] ?? 0) + 1}–${limit}`), `over ${limits.at(-1) ?? 0}`];
}
