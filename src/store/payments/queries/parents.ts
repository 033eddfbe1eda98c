import type { BookDb } from '../../schema';

/** The parent of each of these customers that has one. */
export function parentsOf(
  db: BookDb,
  customerIds: readonly (string | undefined)[],
): Promise<ReadonlyMap<string, string>> {
  const ids = [...new Set(customerIds.flatMap((id) => id ?? []))];
  if (ids.length < 2) return Promise.resolve(new Map());
  return db.customers
    .bulkGet(ids)
    .then(
      (rows) =>
        new Map(rows.flatMap((row) => (row === undefined || row.parentId === '' ? [] : [[row.id, row.parentId]]))),
    );
}
