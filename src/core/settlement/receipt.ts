import type { IssuedDocument } from '@/core/documents/issued';
import { KINDS } from '@/core/documents/kinds';
import { type Currency, exponentOf } from '@/core/kernel/currency';
import type { IsoDate } from '@/core/kernel/date';
import { readTypedDecimal } from '@/core/kernel/decimal';
import { type Minor, minor, minus, NOTHING, negated, readMoney, total } from '@/core/kernel/money';
import type { Refusal } from '@/core/kernel/result';
import type { PaymentMethod } from '@/core/parties/paymentMethod';

/** What of a sum settles one document. */
export interface Settling {
  readonly documentId: string;
  readonly number: string;
  readonly amount: Minor;
}

/** Money received from a customer. What it settles are allocations; what is left of it is kept on account. */
export interface Receipt {
  readonly id: string;
  readonly number: string;
  readonly customerId: string;
  readonly customerName: string;
  readonly date: IsoDate;
  readonly method: PaymentMethod;
  /** The customer's or the bank's words; may be empty. */
  readonly reference: string;
  /** In `currency`. */
  readonly amount: Minor;
  readonly currency: Currency;
  /** What it was worth in home currency on its day. */
  readonly amountHome: Minor;
  /** Still on account, in `currency`. */
  readonly open: Minor;
  /** The same as it stands on receivables, in home currency. */
  readonly openHome: Minor;
  /** 1 while something is on account: database indexes hold no booleans. */
  readonly isOpen: 0 | 1;
  readonly entryId: string;
  readonly recordedAt: string;
  readonly keys: readonly string[];
}

/** What stands on receivables for a customer, in home currency: above zero it owes us. */
export interface OnReceivables {
  readonly customerId: string;
  readonly openHome: Minor;
}

/** Money on account, as it stands on receivables: below zero. */
export function onReceivables({ customerId, openHome }: Receipt): OnReceivables {
  return { customerId, openHome: negated(openHome) };
}

/** Fills open documents with an amount, oldest due first. What is left over is returned with them. */
export function allocateOldestFirst(
  open: readonly IssuedDocument[],
  amount: Minor,
): { readonly allocations: readonly Settling[]; readonly left: Minor } {
  let left = amount;
  const allocations: Settling[] = [];
  const oldestFirst = [...open].sort((a, b) =>
    a.dueDate === b.dueDate ? (a.number < b.number ? -1 : 1) : a.dueDate < b.dueDate ? -1 : 1,
  );
  for (const document of oldestFirst) {
    if (left <= 0n) break;
    if (document.open <= 0n) continue;
    const part = left < document.open ? left : document.open;
    allocations.push({ documentId: document.id, number: document.number, amount: part });
    left = minus(left, part);
  }
  return { allocations, left };
}

/** What keeps these allocations from being recorded. Paths are `allocations[i].amount`. */
export function allocationRefusals(
  allocations: readonly Settling[],
  documents: ReadonlyMap<string, IssuedDocument>,
  customerId: string,
): Refusal[] {
  const refusals: Refusal[] = [];
  const seen = new Set<string>();
  allocations.forEach((allocation, i) => {
    const path = `allocations[${i}].amount`;
    const document = documents.get(allocation.documentId);
    if (document === undefined || document.customerId !== customerId || !KINDS[document.kind].owed)
      refusals.push({ code: 'not-found', path, what: 'invoice-of-customer' });
    else if (seen.has(allocation.documentId)) refusals.push({ code: 'duplicate', path, found: allocation.number });
    else if (allocation.amount <= 0n) refusals.push({ code: 'invalid', path, wanted: 'amount-above-zero' });
    else if (allocation.amount > document.open)
      refusals.push({ code: 'over-allocated', path, number: allocation.number });
    seen.add(allocation.documentId);
  });
  return refusals;
}

/** An amount of money as it is typed; null when it is not one or has too many decimals. */
export function readTypedMoney(text: string, currency: Currency): Minor | null {
  const value = readTypedDecimal(text);
  return value === null ? null : readMoney(value, currency);
}

/** A sample of how an amount is typed in the currency: `12.50`, `12`, `12.500`. */
export function moneySample(currency: Currency): string {
  const decimals = exponentOf(currency);
  return decimals === 0 ? '12' : `12.${'50'.padEnd(decimals, '0').slice(0, decimals)}`;
}

export function allocated(allocations: readonly Settling[]): Minor {
  return allocations.length === 0 ? NOTHING : minor(total(allocations.map((a) => a.amount)));
}
