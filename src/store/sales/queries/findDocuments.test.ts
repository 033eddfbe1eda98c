import fc from 'fast-check';
import { act, day, draftOf, issued, lineOf, newBook } from 'tests/book';
import { type DocumentFilter, fits, NO_FILTER } from '@/core/documents/documentFilter';
import type { IssuedDocument } from '@/core/documents/issued';
import { documentsCsv } from '@/core/files/documentsCsv';
import { searchParts } from '@/core/kernel/words';
import type { BookDb } from '../../schema';
import { vocabularyOf, wordCounts } from '../../vocabulary';
import { annotateDocument, cancelDocument } from '../actions/afterIssue';
import { creditInvoice } from '../actions/creditInvoice';
import { keepDraft } from '../actions/drafts';
import { sendQuoteDraft } from '../actions/quotes';
import { findDocuments } from './findDocuments';

const TODAY = day('2026-03-20');

let db: BookDb;
let all: readonly IssuedDocument[];

beforeAll(async () => {
  db = await newBook();
  const customers = ['ballyvaughan', 'clewbay', 'inishmaan'];
  for (let i = 0; i < 12; i++) {
    const on = `2026-0${1 + Math.floor(i / 4)}-${String(5 + i).padStart(2, '0')}`;
    await issued(db, {
      customerId: customers[i % 3] ?? '',
      issueDate: on,
      due: i % 2 === 0 ? '7d' : '60d',
      orderNumber: `PO-${100 + i}`,
      tags: i % 4 === 0 ? ['hire'] : [],
      lines: [lineOf({ description: i % 5 === 0 ? 'Wave buoy' : 'Tide gauge', price: String(10 + i * 37) })],
    });
  }
  const quote = await act(db, keepDraft, draftOf({ kind: 'quote', due: '7d', customerId: 'clewbay' }), '2026-01-15');
  await act(db, sendQuoteDraft, { draftId: quote.id }, '2026-01-15');
  const [first, second, third] = await db.documents.orderBy('[issueDate+number]').toArray();
  if (first === undefined || second === undefined || third === undefined) throw new Error('no documents');
  await act(db, creditInvoice, { documentId: first.id, date: '2026-03-19', reason: 'Returned' }, '2026-03-19');
  const beside = { remarks: '', tags: ['late payer'], styleId: '' };
  await act(db, annotateDocument, { documentId: second.id, beside }, '2026-03-19');
  const open = (await db.documents.toArray()).filter((d) => d.kind === 'invoice' && d.credited === 0n).at(-1);
  await act(db, cancelDocument, { documentId: open?.id ?? '', reason: 'Twice' }, '2026-03-19');
  all = await db.documents.toArray();
});

const newestFirst = (documents: readonly IssuedDocument[]) =>
  [...documents].sort((a, b) => (a.issueDate + a.number < b.issueDate + b.number ? 1 : -1)).map((d) => d.number);

const filters = fc.record<DocumentFilter>({
  kinds: fc.constantFrom([], ['invoice'], ['quote'], ['credit-note'], ['invoice', 'quote']) as fc.Arbitrary<
    DocumentFilter['kinds']
  >,
  state: fc.constantFrom<DocumentFilter['state']>(
    '',
    '',
    'open',
    'overdue',
    'lapsed',
    'issued',
    'credited',
    'cancelled',
    'sent',
  ),
  customerId: fc.constantFrom('', '', 'clewbay', 'nobody'),
  from: fc.constantFrom('', '', '2026-02-01'),
  until: fc.constantFrom('', '', '2026-02-28'),
  least: fc.constantFrom('', '', '100', '200.5'),
  most: fc.constantFrom('', '', '400'),
  tag: fc.constantFrom('', '', 'hire', 'late payer'),
});
const queries = fc.constantFrom('', '', 'buoy', 'ide gau', 'po 10', 'salmon', 'inv-2026-0003', '2026', 'late', 'zebra');

test('what comes through the indexes is what a look at every document gives, newest first', async () => {
  await fc.assert(
    fc.asyncProperty(filters, queries, async (filter, query) => {
      const found = await findDocuments(db, query, 100, filter, TODAY);
      const plain = all.filter((document) => fits(document, filter, searchParts(query), TODAY));
      expect(found.documents.map((d) => d.number)).toEqual(newestFirst(plain));
      expect(found.more).toBe(false);
    }),
    { numRuns: 200 },
  );
});

test('a page ends where it was asked to, and says that there is more', async () => {
  const page = await findDocuments(db, '', 5, NO_FILTER, TODAY);
  expect([page.documents.length, page.more]).toEqual([5, true]);
  const rest = await findDocuments(db, '', all.length, NO_FILTER, TODAY);
  expect([rest.documents.length, rest.more]).toEqual([all.length, false]);
});

test('parts that very many words hold hide nothing that holds the other parts', async () => {
  const crowded = await newBook();
  const lines = Array.from({ length: 450 }, (_, i) => lineOf({ description: `buoy${1000 + i} ring${1000 + i}` }));
  await issued(crowded, { customerId: 'clewbay', lines: lines.slice(0, 449) });
  await issued(crowded, { customerId: 'inishmaan', lines: lines.slice(449) });
  const numbers = async (query: string) =>
    (await findDocuments(crowded, query, 10, NO_FILTER, TODAY)).documents.map((d) => d.number);
  expect(await numbers('uoy1 ing1449')).toEqual(['INV-2026-0002']);
  expect(await numbers('uoy1 ing1 inis')).toEqual(['INV-2026-0002']);
  expect(await numbers('uoy1 ing1')).toEqual(['INV-2026-0002', 'INV-2026-0001']);
});

test('the kept vocabulary counts what the documents hold, after credits, tags and cancelling too', async () => {
  const kept = (await db.vocabulary.toArray()).filter((word) => word.count !== 0);
  const byWord = (words: readonly { word: string; count: number }[]) =>
    words.map(({ word, count }) => `${word} ${count}`).sort();
  expect(byWord(kept)).toEqual(byWord(vocabularyOf(wordCounts(all))));
});

test('where and how it went, who it was for, and what was written beside it are found too', async () => {
  const own = await newBook();
  const { id } = await issued(own, {
    contact: 'Siobhán Quirke',
    carrier: 'Slieve Freight',
    tracking: 'SF-778120',
    delivery: { street: 'Pier 4', city: 'Rossaveel', region: '', postalCode: '', country: 'IE' },
  });
  const beside = { remarks: 'Promised for Friday', tags: [], styleId: '' };
  await act(own, annotateDocument, { documentId: id, beside }, '2026-01-16');
  await act(own, creditInvoice, { documentId: id, date: '2026-01-20', reason: 'Cracked lens' }, '2026-01-20');
  const kinds = async (query: string) =>
    (await findDocuments(own, query, 5, NO_FILTER, TODAY)).documents.map(({ kind }) => kind);
  for (const query of ['quirke', 'slieve', '778120', 'rossav']) expect(await kinds(query)).toContain('invoice');
  expect(await kinds('promised friday')).toEqual(['invoice']);
  expect(await kinds('cracked')).toEqual(['credit-note']);
});

describe('documents as CSV', () => {
  const rows = (columns: Parameters<typeof documentsCsv>[1]) =>
    documentsCsv(all, columns, day('2026-03-01'))
      .trim()
      .split('\r\n')
      .map((row) => row.split(','));
  test('hold the chosen columns and plain amounts, credit notes below zero', () => {
    const [heads, ...body] = rows(['issued', 'state']);
    expect(heads).toEqual(['kind', 'number', 'issued', 'state', 'net', 'tax', 'total', 'currency']);
    const note = body.find(([kind]) => kind === 'credit-note');
    expect(note?.[4]).toMatch(/^-\d+\.\d\d$/);
    expect(body).toHaveLength(all.length);
  });
  test('a cell that a spreadsheet would run is made harmless', () => {
    const [one] = all;
    if (one === undefined) throw new Error('no document');
    expect(documentsCsv([{ ...one, customerName: '=HYPERLINK("x")' }], ['customer'], day('2026-03-01'))).toContain(
      "'=HYPERLINK",
    );
  });
});
