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
import { isIsoDate } from '@/core/kernel/date';
import { grouped } from '@/core/kernel/grouped';
import { total } from '@/core/kernel/money';
import type { Refusal } from '@/core/kernel/result';
import { validated } from '@/core/kernel/validate';
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

type FieldKind = 'text' | 'empty-or-text' | 'date' | 'amount' | 'list' | 'record';

/** Fields that every row of a table must hold, and of what kind. The rest is proven by seals and schemas. */
const FIELDS: { readonly [T in BookTable]: Readonly<Record<string, FieldKind>> } = {
  book: { id: 'text', business: 'record', begunAt: 'text' },
  registrations: { id: 'text', keptFrom: 'date' },
  jurisdictions: { id: 'text', name: 'text' },
  taxes: { id: 'text', rates: 'list' },
  taxCodes: { id: 'text', components: 'list' },
  places: { id: 'text', stack: 'list', keys: 'list' },
  decisionTables: { id: 'text', rows: 'list' },
  withholdingTypes: { id: 'text', rates: 'list' },
  certificates: { id: 'text', customerId: 'text', from: 'date' },
  priceLists: { id: 'text', prices: 'list' },
  exchangeRates: { id: 'text', date: 'date', perHome: 'text' },
  customers: { id: 'text', name: 'text', keys: 'list' },
  items: { id: 'text', name: 'text', keys: 'list' },
  accounts: { code: 'text', name: 'text', type: 'text' },
  series: { id: 'text', next: 'record' },
  styles: { id: 'text', name: 'text', words: 'list' },
  looks: { id: 'text', style: 'record' },
  savedViews: { id: 'text', name: 'text', filter: 'record' },
  attachments: { id: 'text', ownerId: 'text', name: 'text', data: 'empty-or-text' },
  drafts: { id: 'text', lines: 'list', keys: 'list' },
  documents: {
    id: 'text',
    number: 'text',
    content: 'record',
    figures: 'record',
    seal: 'record',
    issueDate: 'date',
    seriesId: 'text',
    familyId: 'text',
    state: 'text',
    open: 'amount',
    openHome: 'amount',
    received: 'amount',
    credited: 'amount',
    creditNotes: 'list',
    words: 'list',
  },
  receipts: {
    id: 'text',
    number: 'text',
    date: 'date',
    amount: 'amount',
    allocations: 'list',
    settles: 'list',
    keys: 'list',
  },
  journal: { id: 'text', date: 'date', text: 'text' },
  journalLines: { id: 'text', entryId: 'text', account: 'text', date: 'date', amount: 'amount' },
  // On payment basis tax that is not due yet stands in no period.
  taxEntries: { id: 'text', periodId: 'empty-or-text', documentId: 'text', base: 'amount', tax: 'amount' },
  taxPeriods: { id: 'text', start: 'date', end: 'date' },
  transmissions: { id: 'text', documentId: 'text', file: 'text', phase: 'text', tries: 'list', answers: 'list' },
  audit: { id: 'text', at: 'text', action: 'text' },
};

const HOLDS: Readonly<Record<FieldKind, (value: unknown) => boolean>> = {
  text: (v) => typeof v === 'string' && v !== '',
  'empty-or-text': (v) => typeof v === 'string',
  date: isIsoDate,
  amount: (v) => typeof v === 'bigint',
  list: Array.isArray,
  record: (v) => v !== null && typeof v === 'object' && !Array.isArray(v),
};

const fault = (path: string, expected: string): Refusal => ({ code: 'damaged', path, expected });

function shapeFault(table: BookTable, rows: readonly unknown[]): Refusal | null {
  const fields = Object.entries(FIELDS[table]);
  for (const [i, row] of rows.entries()) {
    if (row === null || typeof row !== 'object') return fault(`${table}, row ${i + 1}`, 'a record');
    for (const [name, kind] of fields)
      if (!HOLDS[kind]((row as Record<string, unknown>)[name]))
        return fault(`${table}, row ${i + 1}, ${name}`, `a ${kind}`);
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
    const shape = shapeFault(table as BookTable, rows);
    if (shape !== null) return [shape];
  }
  if (content.book.length !== 1) return [fault('book', 'exactly one business')];
  const wrong = schemaFaults(content);
  if (wrong.length > 0) return wrong;
  for (const [entryId, lines] of grouped(content.journalLines, (line) => line.entryId))
    if (!isBalanced(lines)) return [fault(`journal entry ${entryId}`, 'debits equal to credits')];
  try {
    const found = documentFault(content.documents) ?? receiptFault(content.receipts) ?? transmissionFault(content);
    return found === null ? [] : [found];
  } catch {
    // Content of a wrong shape makes the engine stumble; to the reader that is damage like any other.
    return [fault('documents', 'content that can be computed again')];
  }
}
