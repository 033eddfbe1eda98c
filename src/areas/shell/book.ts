'use client';

import { useLiveQuery } from 'dexie-react-hooks';
import { useRef } from 'react';
import type { Moment } from '@/core/book/changes';
import { type IsoDate, isoDate } from '@/core/kernel/date';
import { type Result, refuse } from '@/core/kernel/result';
import { type Action, perform } from '@/store/perform';
import { BookDb } from '@/store/schema';
import { keepText, keptText } from '@/ui/kept';
import { useQueryRound } from './freshQueries';
import { useLongWork } from './longWork';

let opened: BookDb | null = null;

/** The book of this browser. */
export function bookDb(): BookDb {
  if (opened === null) {
    opened = new BookDb();
    // A newer program wants to bring the book up in another window: this one lets go of it and writes no more.
    opened.on('versionchange', () => {
      opened?.close();
      dispatchEvent(new Event(BOOK_LET_GO));
      // The library would open it again, or an empty one, at the next query.
      return false;
    });
  }
  return opened;
}

/** Told to the window when another one with a newer program, or a deletion, has taken the book. */
export const BOOK_LET_GO = 'able-book-let-go';

const OPERATOR = 'able-ledger-operator';

/** Name of the person at this browser, as it stands on the audit trail. */
export function operatorName(): string {
  return keptText(OPERATOR) ?? 'Bookkeeper';
}

/** Whether the browser could keep it. */
export function setOperatorName(name: string): boolean {
  return keepText(OPERATOR, name.trim() || 'Bookkeeper');
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

/**
 * Runs an action on the book; refusals come back as values, a fault in the program too: whoever waits
 * for an answer always gets one.
 */
export async function act<Input, Value>(action: Action<Input, Value>, input: Input): Promise<Result<Value>> {
  try {
    return await perform(bookDb(), action, input, moment());
  } catch (error) {
    return refuse({ code: 'fault', path: '', found: (error as Error).message });
  }
}

/** What kept the book from opening, which the database tells once and then calls itself closed. */
function openingFault(error: unknown): unknown {
  const { name, inner } = error as { readonly name?: string; readonly inner?: { readonly name: string } };
  const closed = name === 'DatabaseClosedError';
  return closed && inner !== undefined && inner.name !== name ? inner : error;
}

interface Answer<T> {
  readonly about: readonly unknown[];
  readonly value: T;
}

/**
 * A query that is asked again when what it read has changed, or what it asks. Undefined until the first answer.
 * @param about whose the answer is (an id, a period): once it changes, an earlier answer is never given for it.
 * @param within how much or which part of it is asked for (a typed search, a number of rows): while that changes,
 * the last answer stands until the new one is there, so that a list does not flicker.
 * @throws what kept the book from opening; the page shows its fault screen.
 */
export function useBook<T>(
  query: (db: BookDb) => Promise<T>,
  about: readonly unknown[] = [],
  within: readonly unknown[] = [],
): T | undefined {
  const round = useQueryRound();
  const answer = useLiveQuery(
    (): Promise<Answer<T>> =>
      query(bookDb()).then(
        (value) => ({ about, value }),
        (error: unknown) => {
          throw openingFault(error);
        },
      ),
    [...about, ...within, round],
  );
  return isAbout(answer, about) ? answer.value : undefined;
}

function isAbout<T>(answer: Answer<T> | undefined, about: readonly unknown[]): answer is Answer<T> {
  return answer?.about.every((one, i) => one === about[i]) ?? false;
}

/**
 * The same for what stands beside long work: while that writes commit after commit, the last answer stands, and once it has
 * ended it is asked again.
 */
export function useBookAtRest<T>(
  query: (db: BookDb) => Promise<T>,
  about: readonly unknown[] = [],
  within: readonly unknown[] = [],
): T | undefined {
  const atWork = useLongWork();
  const last = useRef<Answer<T>>(undefined);
  return useBook(
    async (db) => {
      if (atWork && isAbout(last.current, about)) return last.current.value;
      const value = await query(db);
      last.current = { about, value };
      return value;
    },
    about,
    [...within, atWork],
  );
}
