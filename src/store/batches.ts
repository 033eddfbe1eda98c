import Dexie from 'dexie';
import { type BookRows, type BookTable, descriptorOf } from '@/core/book/tables';
import type { BookDb } from './schema';

const ignored = () => undefined;

/**
 * Goes through rows a batch at a time; the next one is on its way while one is worked on.
 * @param read gives up to `size` rows after a row, of the first ones after none; fewer at the end.
 */
export async function inBatches<Row>(
  size: number,
  read: (after: Row | undefined) => PromiseLike<Row[]>,
  work: (rows: readonly Row[]) => void,
): Promise<void> {
  let coming = read(undefined);
  for (;;) {
    const rows = await coming;
    const isEnd = rows.length < size;
    if (!isEnd) {
      coming = read(rows.at(-1));
      // When the work throws, nobody waits for it any more.
      coming.then(undefined, ignored);
    }
    work(rows);
    if (isEnd) return;
  }
}

/** Goes through all rows of a table so, by their keys. */
export function wholeTable<T extends BookTable>(
  db: BookDb,
  name: T,
  size: number,
  work: (rows: readonly BookRows[T][]) => void,
): Promise<void> {
  const { key } = descriptorOf(name);
  const table = db.table<BookRows[T], string>(name);
  const keyOf = (row: BookRows[T]) => (row as unknown as Readonly<Record<string, string>>)[key];
  return inBatches<BookRows[T]>(
    size,
    (after) =>
      table
        .where(':id')
        .above(after === undefined ? Dexie.minKey : keyOf(after))
        .limit(size)
        .toArray(),
    work,
  );
}
