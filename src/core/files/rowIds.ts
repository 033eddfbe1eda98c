import type { CsvRow } from '@/core/book/columns/columns';
import type { Refusal } from '@/core/kernel/result';
import type { NamedBy, Wanted } from '@/core/kernel/wanted';
import { wordsOf } from '@/core/kernel/words';

const LONGEST_ID = 40;

const plainName = (name: string): string => wordsOf(name).join(' ');

const says = (row: number, head: string, wanted: Wanted, found: string): Refusal => ({
  code: 'invalid',
  path: `row ${row}, ${head}`,
  wanted,
  found,
});

interface Named {
  readonly id: string;
  readonly name: string;
}

/**
 * Rows of a CSV file with an id for each that gives none, made from its name. A made id never speaks of a record that
 * is there already, nor of another row: where the name is known, the row is refused and the id asked for.
 */
export function withIds(
  rows: readonly CsvRow[],
  known: Iterable<Named>,
): { readonly rows: readonly CsvRow[]; readonly refusals: readonly Refusal[] } {
  const refusals: Refusal[] = [];
  const taken = new Set(rows.map(({ cells }) => cells.id ?? '').filter(Boolean));
  const byName = new Map<string, NamedBy>();
  for (const { id, name } of known) {
    taken.add(id);
    byName.set(plainName(name), { id });
  }
  const made = rows.map((row): CsvRow => {
    const { id = '', name = '' } = row.cells;
    const plain = plainName(name);
    const before = byName.get(plain);
    if (!byName.has(plain)) byName.set(plain, { row: row.row });
    if (id !== '' || name === '') return row;
    if (before !== undefined) refusals.push(says(row.row, 'id', { what: 'id-of-the-one-meant', by: before }, name));
    const stem = plain.replaceAll(' ', '-').slice(0, LONGEST_ID) || `row-${row.row}`;
    let fresh = stem;
    for (let i = 2; taken.has(fresh); i++) fresh = `${stem}-${i}`;
    taken.add(fresh);
    return { ...row, cells: { ...row.cells, id: fresh } };
  });
  return { rows: made, refusals };
}

/** Refuses records that a file holds twice: which of the two holds can't be told. */
export function twice(
  records: readonly { readonly value: { readonly id: string }; readonly rows: readonly number[] }[],
  head: string,
): readonly Refusal[] {
  const first = new Map<string, number>();
  return records.flatMap(({ value: { id }, rows: [row = 0] }) => {
    const before = first.get(id);
    if (before === undefined) first.set(id, row);
    return before === undefined ? [] : [says(row, head, { what: 'another-row', row: before }, id)];
  });
}

/** Refuses rows of one record that say different things of it as a whole. */
export function atOdds(
  rows: readonly CsvRow[],
  heads: readonly string[],
  idOf: (row: CsvRow) => string,
): readonly Refusal[] {
  const first = new Map<string, CsvRow>();
  return rows.flatMap((row) => {
    const before = first.get(idOf(row));
    if (before === undefined) first.set(idOf(row), row);
    return heads.flatMap((head) => {
      const [said, saidBefore = ''] = [row.cells[head] ?? '', before?.cells[head]];
      if (before === undefined || said === saidBefore) return [];
      return [says(row.row, head, { what: 'same-of-record', row: before.row, said: saidBefore }, said)];
    });
  });
}
