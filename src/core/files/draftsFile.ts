import { type CsvRow, cell } from '@/core/book/columns/columns';
import { blankDraft, blankLine, type Draft, type DraftLine } from '@/core/documents/draft';
import type { IsoDate } from '@/core/kernel/date';
import { grouped } from '@/core/kernel/grouped';
import { accept, type Refusal, type Result } from '@/core/kernel/result';
import { readTypedDate } from '@/core/parties/terms';
import { readCsv } from './csv';
import { customerCall } from './importTable';

/** Heads of a file of documents with their lines: lines of one document say the same in `document`. */
export const DRAFT_HEADS = [
  ...['document', 'kind', 'customer', 'date', 'due', 'reference', 'order number'],
  ...['description', 'quantity', 'unit', 'price', 'discount', 'tax code', 'account'],
] as const;

/** Those that may be missing. */
export const DRAFT_OPTIONAL: readonly string[] = [
  ...['kind', 'due', 'reference', 'order number', 'quantity', 'unit', 'discount', 'tax code', 'account'],
];

/** What of the book a file of documents is read against. */
export interface DraftsMaterial {
  readonly registrationId: string;
  /** Account of lines that name none. */
  readonly account: string;
  readonly accounts: ReadonlySet<string>;
  /** Ids of tax codes. */
  readonly codes: ReadonlySet<string>;
  /** Ids of customers by what a file may call them (see `customerCall`); null where several fit. */
  readonly customers: ReadonlyMap<string, string | null>;
  readonly today: IsoDate;
  readonly newId: () => string;
}

/**
 * Reads invoices and quotes as drafts, a line for each row. Refused whole where it is no CSV of these heads; rows that name a
 * customer, a code, an account or a day that there is none of are named in `wrong`.
 */
export function readDrafts(
  text: string,
  material: DraftsMaterial,
): Result<{ readonly drafts: readonly Draft[]; readonly wrong: readonly Refusal[] }> {
  const { registrationId, account, accounts, codes, customers, today, newId } = material;
  const read = readCsv(text, DRAFT_HEADS, DRAFT_OPTIONAL);
  if (!read.ok) return read;
  const wrong: Refusal[] = [];
  const refuseCell = (row: CsvRow, head: string, refusal: Omit<Refusal & { code: 'unknown' | 'invalid' }, 'path'>) =>
    wrong.push({ ...refusal, path: `row ${row.row}, ${head}` } as Refusal);
  const lineOf = (row: CsvRow): DraftLine => {
    const [code, own] = [cell(row, 'tax code'), cell(row, 'account')];
    if (code !== '' && !codes.has(code))
      refuseCell(row, 'tax code', { code: 'unknown', wanted: 'known-tax-code', found: code });
    if (own !== '' && !accounts.has(own))
      refuseCell(row, 'account', { code: 'unknown', wanted: 'choose-account', found: own });
    const line = blankLine(newId(), own || account);
    return {
      ...line,
      description: cell(row, 'description'),
      quantity: cell(row, 'quantity') || '1',
      unit: cell(row, 'unit') || line.unit,
      price: cell(row, 'price'),
      discount: cell(row, 'discount'),
      ...(code !== '' && { taxCode: code, taxByHand: true }),
    };
  };
  const drafts = [...grouped(read.value, (row) => cell(row, 'document')).values()].flatMap((rows): Draft[] => {
    const [first] = rows;
    if (first === undefined) return [];
    const customerId = customers.get(customerCall(cell(first, 'customer'))) ?? '';
    if (customerId === '')
      refuseCell(first, 'customer', { code: 'unknown', wanted: 'known-customer', found: cell(first, 'customer') });
    const date = readTypedDate(cell(first, 'date'), today, today);
    if (date === null) refuseCell(first, 'date', { code: 'invalid', wanted: 'give-a-day', found: cell(first, 'date') });
    const said = cell(first, 'kind').toLowerCase() || 'invoice';
    if (said !== 'invoice' && said !== 'quote')
      refuseCell(first, 'kind', { code: 'invalid', wanted: 'choose-kind-of-draft', found: said });
    const kind = said === 'quote' ? 'quote' : 'invoice';
    const draft = blankDraft(newId(), kind, registrationId, date ?? today);
    return [
      {
        ...draft,
        customerId,
        due: cell(first, 'due') || draft.due,
        buyerReference: cell(first, 'reference'),
        orderNumber: cell(first, 'order number'),
        lines: rows.map(lineOf),
      },
    ];
  });
  return accept({ drafts, wrong });
}
