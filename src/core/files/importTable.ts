import type { Decision } from '@/core/book/changes';
import type { Columns, ReadRecord } from '@/core/book/columns/columns';
import { type CsvTable, columnsOf } from '@/core/book/tables';
import { recordKept, recordRefusals, type SetupRecords } from '@/core/decisions/setup/records';
import { writeCanonical } from '@/core/kernel/canonical';
import type { IsoDate } from '@/core/kernel/date';
import { accept, type Refusal, type Result, refuse } from '@/core/kernel/result';
import { knownClasses, type TaxRecords } from '@/core/tax/taxSetup';
import { readCsv } from './csv';
import { atOdds, twice, withIds } from './rowIds';

export type CsvRecords = Pick<SetupRecords, CsvTable>;

const shapeOf = <T extends CsvTable>(table: T) => columnsOf(table) as unknown as Columns<CsvRecords[T]>;

/** What of the book an import is held against. */
export interface ImportMaterial<T extends CsvTable> {
  readonly known: ReadonlyMap<string, CsvRecords[T]>;
  readonly records: TaxRecords;
  /** Newest tax point of entries by tax. */
  readonly usedUntil: ReadonlyMap<string, IsoDate>;
  /** Ids of customers by what a file may call them (see `customerCall`): id, tax number or name; null where several fit. */
  readonly customers: ReadonlyMap<string, string | null>;
  /** Codes of the chart of accounts. */
  readonly accounts: ReadonlySet<string>;
}

/** What a file would do. Nothing is taken in while any row is wrong. */
export interface ImportPlan<T extends CsvTable> {
  readonly added: readonly CsvRecords[T][];
  readonly changed: readonly { readonly before: CsvRecords[T]; readonly after: CsvRecords[T] }[];
  readonly same: number;
  /** Path is `row 3, percent`. */
  readonly wrong: readonly Refusal[];
}

const MOST_WRONG = 50;

function placed<T extends CsvTable>(table: T, read: ReadRecord<CsvRecords[T]>, refusal: Refusal): Refusal {
  const at = /\[(\d+)\]/.exec(refusal.path)?.[1];
  const row = read.rows.length > 1 && at !== undefined ? (read.rows[Number(at)] ?? read.rows[0]) : read.rows[0];
  const column = refusal.path === '' ? '' : `, ${shapeOf(table).columnOf(refusal.path)}`;
  return { ...refusal, path: `row ${row}${column}` };
}

/** What a file calls a customer, as it is compared. */
export const customerCall = (text: string): string => text.trim().toLowerCase();

type Callable = Pick<ImportMaterial<CsvTable>, 'customers'>;

function isKnownCustomer(id: string, { customers }: Callable): boolean {
  return customers.get(customerCall(id)) === id;
}

/** A certificate with the id of the customer that its file calls by number or name. */
function withCustomerId<T extends CsvTable>(table: T, value: CsvRecords[T], { customers }: Callable): CsvRecords[T] {
  if (table !== 'certificates') return value;
  const { customerId } = value as CsvRecords['certificates'];
  return { ...value, customerId: customers.get(customerCall(customerId)) ?? customerId };
}

/** Reads a file and says what it would add and change, and every row that is wrong. */
export function planImport<T extends CsvTable>(
  table: T,
  text: string,
  material: ImportMaterial<T>,
): Result<ImportPlan<T>> {
  const shape = shapeOf(table);
  const rows = readCsv(text, shape.heads, shape.optional);
  if (!rows.ok) return rows;
  const identified = shape.idFromName
    ? withIds(rows.value, material.known.values() as Iterable<CsvRecords['customers' | 'items']>)
    : { rows: rows.value, refusals: [] };
  const read = shape
    .read(identified.rows, (id) => material.known.get(id))
    .map((one) => ({ ...one, value: withCustomerId(table, one.value, material) }));
  const classes = new Set(knownClasses(material.records));
  // Jurisdictions of one file may lie in each other.
  const fresh = table === 'jurisdictions' ? (read.map((r) => r.value) as CsvRecords['jurisdictions'][]) : [];
  const records: TaxRecords = {
    ...material.records,
    jurisdictions: [...material.records.jurisdictions.filter((j) => !fresh.some((f) => f.id === j.id)), ...fresh],
  };
  const [idHead = ''] = shape.heads;
  const wrong: Refusal[] = [
    ...identified.refusals,
    ...twice(read, idHead),
    ...atOdds(rows.value, shape.agreed ?? [], ({ cells }) => cells[idHead] ?? ''),
  ];
  const added: CsvRecords[T][] = [];
  const changed: { before: CsvRecords[T]; after: CsvRecords[T] }[] = [];
  let same = 0;
  for (const one of read) {
    const before = material.known.get(one.value.id);
    const usedUntil = material.usedUntil.get(one.value.id) ?? null;
    const found = recordRefusals<CsvTable>(table, one.value, {
      before,
      isNew: false,
      records,
      usedUntil,
      accounts: material.accounts,
    });
    wrong.push(...found.map((refusal) => placed(table, one, refusal)));
    if (table === 'certificates' && !isKnownCustomer((one.value as CsvRecords['certificates']).customerId, material))
      wrong.push({ code: 'unknown', path: `row ${one.rows[0]}, customer`, wanted: 'known-customer' });
    if (table === 'items' && !classes.has((one.value as CsvRecords['items']).taxClass))
      wrong.push({ code: 'unknown', path: `row ${one.rows[0]}, class`, wanted: 'known-tax-class' });
    const kept = recordKept<CsvTable>(table, one.value) as CsvRecords[T];
    if (before === undefined) added.push(kept);
    else if (writeCanonical(before) === writeCanonical(kept)) same++;
    else changed.push({ before, after: kept });
  }
  return accept({ added, changed, same, wrong: wrong.slice(0, MOST_WRONG) });
}

/** Takes a file in whole; refused with its rows while any is wrong. */
export function importTable<T extends CsvTable>(
  table: T,
  text: string,
  material: ImportMaterial<T>,
): Decision<{ added: number; changed: number }> {
  const planned = planImport(table, text, material);
  if (!planned.ok) return planned;
  const { added, changed, wrong } = planned.value;
  if (wrong.length > 0) return refuse(...wrong);
  return accept({
    value: { added: added.length, changed: changed.length },
    changes: {
      put: { [table]: [...added, ...changed.map(({ after }) => after)] },
      audit: {
        subject: `${shapeOf(table).title}: ${added.length} added, ${changed.length} changed`,
        about: [...added.map(({ id }) => id), ...changed.map(({ after }) => after.id)],
        before: Object.fromEntries(changed.map(({ before }) => [before.id, before])),
        after: Object.fromEntries([...added, ...changed.map(({ after }) => after)].map((one) => [one.id, one])),
      },
    },
  });
}
