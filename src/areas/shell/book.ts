'use client';

import { useLiveQuery } from 'dexie-react-hooks';
import type { Moment } from '@/core/decisions/changes';
import { type IsoDate, isoDate } from '@/core/kernel/date';
import type { Result } from '@/core/kernel/result';
import { type Action, perform } from '@/store/perform';
import { BookDb } from '@/store/schema';

let opened: BookDb | null = null;

/** The book of this browser. */
export function bookDb(): BookDb {
  opened ??= new BookDb();
  return opened;
}

const OPERATOR = 'able-ledger-operator';

/** Name of the person at this browser, as it stands on the audit trail. */
export function operatorName(): string {
  return localStorage.getItem(OPERATOR) ?? 'Bookkeeper';
}

export function setOperatorName(name: string): void {
  localStorage.setItem(OPERATOR, name.trim() || 'Bookkeeper');
}

/** Today by this browser's clock and place. */
export function today(): IsoDate {
  const now = new Date();
  const two = (n: number) => String(n).padStart(2, '0');
  return isoDate(`${now.getFullYear()}-${two(now.getMonth() + 1)}-${two(now.getDate())}`);
}

/** The outside world as actions may know it. */
export function moment(): Moment {
  return { now: new Date().toISOString(), today: today(), operator: operatorName(), newId: () => crypto.randomUUID() };
}

/** Runs an action on the book; refusals come back as values. */
export function act<Input, Value>(action: Action<Input, Value>, input: Input): Promise<Result<Value>> {
  return perform(bookDb(), action, input, moment());
}

/** A query that is asked again when what it read has changed. Undefined while it is first asked. */
export function useBook<T>(query: (db: BookDb) => Promise<T>, dependencies: readonly unknown[] = []): T | undefined {
  return useLiveQuery(() => query(bookDb()), [...dependencies]);
}
