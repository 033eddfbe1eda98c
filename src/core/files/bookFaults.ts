import type { BookContent, BookTable } from '@/core/decisions/changes';
import { figuresOf } from '@/core/documents/content';
import { savedViewSchema } from '@/core/documents/documentFilter';
import { exchangeRateSchema } from '@/core/documents/exchangeRate';
import type { IssuedDocument } from '@/core/documents/issued';
import { itemSchema } from '@/core/documents/item';
import { priceListSchema } from '@/core/documents/priceList';
import { digest, firstBroken } from '@/core/documents/seal';
import { seriesSchema } from '@/core/documents/series';
import { styleSchema } from '@/core/documents/style';
import { writeCanonical } from '@/core/kernel/canonical';
import { grouped } from '@/core/kernel/grouped';
import { total } from '@/core/kernel/money';
import type { Refusal } from '@/core/kernel/result';
import { validated } from '@/core/kernel/validate';
import { FIRST_CHART } from '@/core/ledger/account';
import { isBalanced } from '@/core/ledger/entry';
import { businessSchema } from '@/core/parties/business';
import { certificateSchema } from '@/core/parties/certificate';
import { customerSchema } from '@/core/parties/customer';
import { decisionRowSchema } from '@/core/tax/decisionTable';
import { jurisdictionSchema } from '@/core/tax/jurisdiction';
import { placeSchema } from '@/core/tax/place';
import { registrationSchema } from '@/core/tax/registration';
import { taxSchema } from '@/core/tax/tax';
import { taxCodeSchema } from '@/core/tax/taxCode';
import { withholdingTypeSchema } from '@/core/tax/withholding';
import { BOOK_RELATIONS } from './bookRelations';
import { ROW_SHAPES } from './rowShapes';

/** Faults of one kind that are told. */
const MOST_FAULTS = 5;

/** Roles that each book has an account for. */
const ROLES = FIRST_CHART.map(({ role }) => role).filter((role) => role !== '');

const fault = (path: string, expected: string): Refusal => ({ code: 'damaged', path, expected });

function shapeFault(table: BookTable, rows: readonly unknown[]): Refusal | null {
  const shape = ROW_SHAPES[table];
  for (const [i, row] of rows.entries()) {
    const found = shape(row);
    if (found !== null) return fault(`${table}, row ${i + 1}${found.at.replace(/^\./, ', ')}`, found.expected);
  }
  return null;
}

/** Ids are what rows are found by: none may stand twice. */
function doubleFault(table: BookTable, rows: readonly unknown[]): Refusal | null {
  const seen = new Set<unknown>();
  for (const row of rows as readonly { id?: unknown; code?: unknown }[]) {
    const key = table === 'accounts' ? row.code : row.id;
    if (seen.has(key)) return fault(`${table}, ${String(key)}`, 'a row that stands once');
    seen.add(key);
  }
  return null;
}

function schemaFaults(content: BookContent): Refusal[] {
  const checks = [
    ...content.book.map((row) => ['book', businessSchema, row.business] as const),
    ...content.registrations.map((row) => ['registrations', registrationSchema, row] as const),
    ...content.jurisdictions.map((row) => ['jurisdictions', jurisdictionSchema, row] as const),
    ...content.taxes.map((row) => ['taxes', taxSchema, row] as const),
    ...content.taxCodes.map((row) => ['taxCodes', taxCodeSchema, row] as const),
    ...content.places.map((row) => ['places', placeSchema, row] as const),
    ...content.decisionTables.flatMap((table) =>
      table.rows.map((row) => ['decisionTables', decisionRowSchema, row] as const),
    ),
    ...content.withholdingTypes.map((row) => ['withholdingTypes', withholdingTypeSchema, row] as const),
    ...content.certificates.map((row) => ['certificates', certificateSchema, row] as const),
    ...content.priceLists.map((row) => ['priceLists', priceListSchema, row] as const),
    ...content.exchangeRates.map((row) => ['exchangeRates', exchangeRateSchema, row] as const),
    ...content.series.map((row) => ['series', seriesSchema, row] as const),
    ...content.styles.map((row) => ['styles', styleSchema, row] as const),
    ...content.looks.map((row) => ['looks', styleSchema, row.style] as const),
    ...content.savedViews.map((row) => ['savedViews', savedViewSchema, row] as const),
    ...content.customers.map((row) => ['customers', customerSchema, row] as const),
    ...content.items.map((row) => ['items', itemSchema, row] as const),
  ];
  for (const [table, schema, row] of checks) {
    const result = validated(schema, row);
    if (!result.ok) return result.refusals.map((r) => fault(`${table}, ${r.path}`, r.expected ?? ''));
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

/** A receipt is the sum of what it settles. */
function receiptFault(receipts: BookContent['receipts']): Refusal | null {
  for (const { number, amount, allocations } of receipts) {
    const parts = allocations.map((allocation) => allocation.amount);
    if (!parts.every((part) => typeof part === 'bigint') || total(parts) !== amount)
      return fault(`receipt ${number}`, 'allocations that add up to it');
  }
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
    const found = documentFault(content.documents) ?? receiptFault(content.receipts) ?? transmissionFault(content);
    if (found !== null) return [found];
    for (const { faultsIn } of BOOK_RELATIONS) {
      const faults = faultsIn(content);
      if (faults.length > 0) return faults.slice(0, MOST_FAULTS);
    }
    return [];
  } catch {
    // Content of a wrong shape makes the engine stumble; to the reader that is damage like any other.
    return [fault('documents', 'content that can be computed again')];
  }
}
