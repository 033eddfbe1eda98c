import { act, day, draftOf, issued, newBook } from 'tests/book';
import type { BookContent } from '@/core/book/tables';
import { onePart } from '@/core/decisions/payments/onePart';
import { unpackArchive } from '@/core/files/archive';
import { BOOK_RELATIONS } from '@/core/files/bookRelations';
import { faultsIn } from '@/core/files/gathering';
import { minor } from '@/core/kernel/money';
import { archiveBook } from './archive';
import { present } from './load';
import { recordReceipt } from './payments/actions/recordReceipt';
import { creditInvoice } from './sales/actions/creditInvoice';
import { keepDraft } from './sales/actions/drafts';
import { sendQuoteDraft } from './sales/actions/quotes';

const TODAY = '2026-02-10';
let book: BookContent;

beforeAll(async () => {
  const db = await newBook();
  const first = await issued(db);
  await issued(db, { customerId: 'clewbay', issueDate: '2026-01-20' });
  const request = { kind: 'amount', amount: minor(2300n) } as const;
  await act(db, creditInvoice, { documentId: first.id, date: TODAY, reason: 'Late', request }, TODAY);
  const allocations = [{ documentId: first.id, number: first.number, amount: minor(1000n) }];
  const receipt = { customerId: first.customerId, date: TODAY, method: 'bank', reference: '', allocations } as const;
  await act(db, recordReceipt, onePart(receipt), TODAY);
  const quote = await act(db, keepDraft, draftOf({ kind: 'quote', due: '7d', issueDate: TODAY }), TODAY);
  await act(db, sendQuoteDraft, { draftId: quote.id }, TODAY);
  const read = unpackArchive(await archiveBook(db, `${TODAY}T12:00:00.000Z`));
  if (!read.ok) throw new Error('refused');
  book = read.value.content;
});

type Table = keyof BookContent;
type Row<T extends Table> = BookContent[T][number];

/** The book with one row of a table changed, the first that `of` names. */
function having<T extends Table>(table: T, of: (row: Row<T>) => boolean, over: Partial<Row<T>>): BookContent {
  const rows = book[table] as readonly Row<T>[];
  const at = rows.findIndex(of);
  if (at < 0) throw new Error(`no such row in ${table}`);
  return { ...book, [table]: rows.map((row, i) => (i === at ? { ...(row as object), ...over } : row)) };
}

const without = (table: Table): BookContent => ({ ...book, [table]: [] });
const first = () => true;
const invoice = ({ number }: { readonly number: string }) => number === 'INV-2026-0001';
const prefixed = (prefix: string) => (series: Row<'series'>) => series.prefix === prefix;

test('a book that actions made agrees with itself', () => {
  for (const check of BOOK_RELATIONS) expect(faultsIn(check, book)).toEqual([]);
});

test.each<[string, number, () => BookContent, readonly RegExp[]]>([
  ['a document of no series', 0, () => having('documents', invoice, { seriesId: 'x' }), [/INV-2026-0001, series/]],
  ['a document of nobody', 0, () => having('documents', invoice, { customerId: 'x' }), [/INV-2026-0001, customer/]],
  ['a document without its entry', 0, () => having('documents', invoice, { entryId: 'x' }), [/INV-2026-0001, entry/]],
  [
    'a credit note that is gone',
    0,
    () => having('documents', invoice, { creditNotes: [{ id: 'x', number: 'CN-1' }] }),
    [/INV-2026-0001, credit notes/],
  ],
  ['a receipt of nobody', 0, () => having('receipts', first, { customerId: 'x' }), [/receipt REC-2026-0001, customer/]],
  [
    'a receipt without its entry',
    0,
    () => having('receipts', first, { entryId: 'x' }),
    [/receipt REC-2026-0001, entry/],
  ],
  ['a line of no account', 0, () => having('journalLines', first, { account: '9999' }), [/account$/]],
  ['a tax entry of no document', 0, () => having('taxEntries', first, { documentId: 'x' }), [/^tax entry/]],
  ['a period of no registration', 0, () => having('taxPeriods', first, { registrationId: 'x' }), [/^tax period/]],
  ['another number than was sealed', 1, () => having('documents', invoice, { number: 'INV-9' }), [/^INV-9, number/]],
  [
    'another day than was sealed',
    1,
    () => having('documents', invoice, { issueDate: day('2026-01-16') }),
    [/issue date/],
  ],
  ['another name than was sealed', 1, () => having('documents', invoice, { customerName: 'x' }), [/customer name/]],
  ['a state that does not follow', 1, () => having('documents', invoice, { state: 'paid' }), [/state/]],
  ['a mark of open that does not follow', 1, () => having('documents', invoice, { isOpen: 0 }), [/open/]],
  ['money that no receipt brought', 2, () => having('documents', invoice, { received: minor(1n) }), [/open amount/]],
  ['a note that was set off by more', 2, () => having('documents', invoice, { credited: minor(1n) }), [/open amount/]],
  ['more open than is owed', 2, () => having('documents', invoice, { open: minor(1n) }), [/open amount/]],
  [
    'receivables that are not what is owed',
    3,
    () => having('documents', invoice, { openHome: minor(1n) }),
    [/receivables/],
  ],
  ['a receivables account without its lines', 3, () => without('journalLines'), [/receivables/]],
  ['a counter behind the numbers', 4, () => having('series', prefixed('INV'), { next: { '2026': 2 } }), [/series INV/]],
  ['a counter of receipts behind', 4, () => having('series', prefixed('REC'), { next: {} }), [/series REC/]],
  ['a count of documents that are not there', 4, () => having('series', prefixed('QUO'), { count: 5 }), [/series QUO/]],
  ['another last seal', 4, () => having('series', prefixed('CN'), { lastSeal: 'x' }), [/series CN/]],
  [
    'a number that is used twice',
    4,
    () => ({ ...book, documents: [...book.documents, ...book.documents] }),
    [/^INV-2026-0001$/],
  ],
])('%s is named', (_, relation, damaged, paths) => {
  const check = present(BOOK_RELATIONS[relation], 'the check');
  const found = faultsIn(check, damaged()).map(({ path }) => path);
  for (const path of paths) expect(found.filter((one) => path.test(one))).not.toEqual([]);
});
