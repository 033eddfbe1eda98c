import type { Item } from '@/core/catalogue/item';
import type { IsoDate } from '@/core/kernel/date';
import type { Business } from '@/core/parties/business';
import type { Customer } from '@/core/parties/customer';
import type { DecisionRow } from '@/core/tax/decisionTable';
import type { Place } from '@/core/tax/place';

/* Rows of the book that are more than what a form keeps, or stand for the book itself. */

/** The book's own row: what it is kept for. */
export interface Book {
  readonly id: 'book';
  readonly business: Business;
  readonly begunAt: string;
  /** First month of the fiscal year, from 1; January unless it is given. */
  readonly yearStart?: number;
  /** Last day on which nothing is posted any more; missing or empty for none. */
  readonly lockedUntil?: IsoDate | '';
}

/** A customer with the keys it is found by. */
export interface CustomerRow extends Customer {
  readonly keys: readonly string[];
}

/** An item with the keys it is found by. */
export interface ItemRow extends Item {
  readonly keys: readonly string[];
}

/** A place with the keys that addresses find it by. */
export interface PlaceRow extends Place {
  readonly keys: readonly string[];
}

/** The decision table as one row, so that its order is written whole. */
export interface DecisionTable {
  readonly id: 'table';
  readonly rows: readonly DecisionRow[];
}

/** One line of the audit trail: when, who, what, before and after. */
export interface AuditEvent {
  readonly id: string;
  readonly at: string;
  readonly operator: string;
  /** Name of the action. */
  readonly action: string;
  readonly subject: string;
  readonly about?: readonly string[];
  readonly before?: unknown;
  readonly after?: unknown;
}
