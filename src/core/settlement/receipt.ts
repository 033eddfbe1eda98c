import type { Currency } from '@/core/kernel/currency';
import type { IsoDate } from '@/core/kernel/date';
import { type Minor, negated } from '@/core/kernel/money';
import type { PaymentMethod } from '@/core/parties/paymentMethod';

/** What of a sum settles one document. */
export interface Settling {
  readonly documentId: string;
  readonly number: string;
  readonly amount: Minor;
}

/** Money that came in one way; amounts in the currency of its receipt. */
export interface ReceiptPart {
  readonly method: PaymentMethod;
  /** Code of the account it came to. */
  readonly account: string;
  readonly amount: Minor;
  /** Of it, what the bank or the card company kept back. */
  readonly charge: Minor;
  /** What it was worth in home currency, the charge with it. */
  readonly home: Minor;
  /** Null for all but cheques. */
  readonly cheque: { readonly number: string; readonly date: IsoDate } | null;
}

/** That a receipt came back unpaid. */
export interface Dishonour {
  readonly on: IsoDate;
  /** Instant. */
  readonly at: string;
  readonly reason: string;
  /** What the bank asked for it, in home currency. */
  readonly fee: Minor;
  /** It never came: it was recorded, or matched with a bank line, by mistake. */
  readonly mistake?: boolean;
  /** Entries that took the receipt back and paid the fee. */
  readonly entryIds: readonly string[];
}

/**
 * Money received from a customer, and what it kept back as tax. What it settles are allocations; what is left of it is kept
 * on account.
 */
export interface Receipt {
  readonly id: string;
  readonly number: string;
  readonly customerId: string;
  readonly customerName: string;
  readonly date: IsoDate;
  /** Day from which it counts: that of a cheque that is dated later, or `date`. */
  readonly valueDate: IsoDate;
  /** The customer's or the bank's words; may be empty. */
  readonly reference: string;
  /** For ourselves; never printed. */
  readonly remarks: string;
  readonly parts: readonly ReceiptPart[];
  /** All parts and what was withheld with them, in `currency`. */
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
  readonly dishonoured: Dishonour | null;
  readonly keys: readonly string[];
}

/** How the money of a receipt came, in words: `bank`, `bank and cheque`. */
export function methodsOf({ parts }: Pick<Receipt, 'parts'>): string {
  const [first = '', ...more] = [...new Set(parts.map(({ method }) => method))];
  return more.length === 0 ? first : `${[first, ...more.slice(0, -1)].join(', ')} and ${more.at(-1)}`;
}

/** A cheque whose day has not come. */
export function isPostDated({ valueDate }: Pick<Receipt, 'valueDate'>, on: IsoDate): boolean {
  return valueDate > on;
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
