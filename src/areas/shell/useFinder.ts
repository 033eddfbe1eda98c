'use client';

import type { BookDb } from '@/store/schema';
import { useBook } from './book';

const NONE: readonly never[] = [];
const ROWS_OFFERED = 8;

export interface Found<Row> {
  readonly rows: readonly Row[];
  /** The answer to what is typed now is still on its way. */
  readonly pending: boolean;
}

/**
 * What fits a typed text, and nothing while the answer to an earlier text is still standing: Enter
 * must never take a row that what is typed now would not show.
 */
export function useFinder<Row>(
  find: (db: BookDb, query: string, limit: number) => Promise<Row[]>,
  typed: string,
  wanted = true,
): Found<Row> {
  const rows = useBook(async (db) => (wanted ? await find(db, typed, ROWS_OFFERED) : NONE), [typed, wanted]);
  return { rows: rows ?? NONE, pending: rows === undefined };
}
