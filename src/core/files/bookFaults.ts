import { BOOK_TABLES, type BookContent, type BookTable, descriptorOf } from '@/core/book/tables';
import { figuresOf } from '@/core/documents/content';
import type { IssuedDocument } from '@/core/documents/issued';
import { firstBroken } from '@/core/documents/seal';
import { writeCanonical } from '@/core/kernel/canonical';
import { digest } from '@/core/kernel/digest';
import { grouped } from '@/core/kernel/grouped';
import type { Refusal } from '@/core/kernel/result';
import { validated } from '@/core/kernel/validate';
import { FIRST_CHART } from '@/core/ledger/account';
import { isBalanced } from '@/core/ledger/entry';
import { BOOK_RELATIONS } from './bookRelations';

/** Faults of one kind that are told. */
const MOST_FAULTS = 5;

/** Roles that each book has an account for. */
const ROLES = FIRST_CHART.map(({ role }) => role).filter((role) => role !== '');

const fault = (path: string, expected: string): Refusal => ({ code: 'damaged', path, expected });

function shapeFault(table: BookTable, rows: readonly unknown[]): Refusal | null {
  const { shape } = descriptorOf(table);
  for (const [i, row] of rows.entries()) {
    const found = shape(row);
    if (found !== null) return fault(`${table}, row ${i + 1}${found.at.replace(/^\./, ', ')}`, found.expected);
  }
  return null;
}

/** Keys are what rows are found by: none may stand twice. */
function doubleFault(table: BookTable, rows: readonly unknown[]): Refusal | null {
  const { key } = descriptorOf(table);
  const seen = new Set<unknown>();
  for (const row of rows as readonly Readonly<Record<string, unknown>>[]) {
    const own = row[key];
    if (seen.has(own)) return fault(`${table}, ${String(own)}`, 'a row that stands once');
    seen.add(own);
  }
  return null;
}

function schemaFaults(content: BookContent): Refusal[] {
  for (const table of BOOK_TABLES) {
    const { records } = descriptorOf(table);
    if (records === undefined) continue;
    for (const record of content[table].flatMap((row) => records.of(row as never))) {
      const result = validated(records.schema, record);
      if (!result.ok) return result.refusals.map((r) => fault(`${table}, ${r.path}`, 'a record that Setup would keep'));
    }
  }
  return [];
}

function documentFault(documents: readonly IssuedDocument[]): Refusal | null {
  for (const [series, chain] of grouped(documents, (d) => d.seriesId)) {
    const broken = firstBroken([...chain].sort((a, b) => a.position - b.position));
    if (broken !== null) return fault(`${series} ${broken}`, 'content that fits its seal');
  }
  for (const document of documents)
    if (writeCanonical(figuresOf(document.content)) !== writeCanonical(document.figures))
      return fault(document.number, 'figures that follow from the content');
  return null;
}

/** What was sent stands as it went out, and belongs to a document of the book. */
function transmissionFault({ transmissions, documents }: BookContent): Refusal | null {
  const ids = new Set(documents.map(({ id }) => id));
  for (const { id, number, documentId, file, sha256 } of transmissions)
    if (digest(file) !== sha256 || !ids.has(documentId))
      return fault(`transmission ${id}`, `the e-invoice of ${number} as it was sent`);
  return null;
}

/** What is wrong with a whole book; empty when it can be trusted. Stops at the first kind of fault. */
export function bookFaults(content: BookContent): readonly Refusal[] {
  for (const [table, rows] of Object.entries(content)) {
    const found = shapeFault(table as BookTable, rows) ?? doubleFault(table as BookTable, rows);
    if (found !== null) return [found];
  }
  if (content.book.length !== 1) return [fault('book', 'exactly one business')];
  if (content.registrations.length === 0) return [fault('registrations', 'at least one registration')];
  if (!ROLES.every((role) => content.accounts.some((account) => account.role === role)))
    return [fault('accounts', 'an account for each role that actions post to')];
  const wrong = schemaFaults(content);
  if (wrong.length > 0) return wrong;
  for (const [entryId, lines] of grouped(content.journalLines, (line) => line.entryId))
    if (!isBalanced(lines)) return [fault(`journal entry ${entryId}`, 'debits equal to credits')];
  try {
    const found = documentFault(content.documents) ?? transmissionFault(content);
    if (found !== null) return [found];
    for (const { faultsIn } of BOOK_RELATIONS) {
      const faults = faultsIn(content);
      if (faults.length > 0) return faults.slice(0, MOST_FAULTS);
    }
    return [];
  } catch {
    // Content of a wrong shape makes the engine stumble; to the reader that is damage like any other.
    return [fault('documents', 'content that can be recomputed')];
  }
}
