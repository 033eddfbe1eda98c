import { NO_FILTER } from '@/core/documents/documentFilter';
import { amountKeyOf, type IssuedDocument } from '@/core/documents/issued';
import { addDays, isoDate } from '@/core/kernel/date';
import { wordsIn } from '@/core/kernel/words';
import { present } from '@/store/load';
import { keepDraft } from '@/store/sales/actions/drafts';
import { issueInvoice } from '@/store/sales/actions/issueInvoice';
import { findDocuments } from '@/store/sales/queries/findDocuments';
import type { BookDb } from '@/store/schema';
import { vocabularyOf, wordCounts } from '@/store/vocabulary';
import { act, draftOf, freshBook, KEPT_FROM, rowsRead, timed } from './books';

const NAMES = ['harbour', 'salmon', 'marina', 'institute', 'quay', 'trawler', 'lighthouse', 'oyster', 'ferry', 'barge'];
const STATES = ['paid', 'issued', 'part-paid', 'credited'] as const;
const AT_ONCE = 2000;

/** A copy of a document under its own number, words, day and amount. */
function likeOf(one: IssuedDocument, i: number, count: number): IssuedDocument {
  const number = `INV-2026-${String(i + 2).padStart(6, '0')}`;
  const amount = String(1000 + ((i * 7919) % 900_000));
  return {
    ...one,
    id: `many-${i}`,
    number,
    issueDate: addDays(KEPT_FROM, Math.floor((i * 364) / count)),
    seriesId: 'many',
    position: i + 1,
    familyId: `many-${i}`,
    state: STATES[i % 4] ?? 'paid',
    amountKey: amountKeyOf(amount),
    words: wordsIn([
      number,
      NAMES[i % 10] ?? '',
      `${NAMES[(i * 3) % 10]}${i % 400}`,
      amount,
      `sensor${i % 2000}`,
      `po${i}`,
    ]),
  };
}

/** A book with many documents in its index. */
async function indexBook(name: string, count: number): Promise<BookDb> {
  const db = await freshBook(name);
  const draft = await act(db, keepDraft, draftOf(1, isoDate('2026-01-15')), KEPT_FROM);
  const { id } = await act(db, issueInvoice, { draftId: draft.id }, isoDate('2026-01-15'));
  const one = present(await db.documents.get(id), 'a document');
  const words: { readonly words: readonly string[] }[] = [one];
  for (let from = 0; from < count; from += AT_ONCE) {
    const rows = Array.from({ length: Math.min(AT_ONCE, count - from) }, (_, k) => likeOf(one, from + k, count));
    await db.documents.bulkAdd(rows);
    words.push(...rows.map((row) => ({ words: row.words })));
  }
  await db.vocabulary.clear();
  const vocabulary = vocabularyOf(wordCounts(words));
  for (let from = 0; from < vocabulary.length; from += 10 * AT_ONCE)
    await db.vocabulary.bulkAdd(vocabulary.slice(from, from + 10 * AT_ONCE));
  return db;
}

const WAYS: readonly (readonly [string, string, object])[] = [
  ['first page', '', {}],
  ['“light”', 'light', {}],
  ['“sens”', 'sens', {}],
  ['“ensor17”', 'ensor17', {}],
  ['“oyster po12”', 'oyster po12', {}],
  ['“po4711”', 'po4711', {}],
  ['state and days', '', { state: 'part-paid', from: '2026-03-01', until: '2026-04-30' }],
  ['amounts', '', { least: '5000', most: '5200' }],
];

/** (e) Each way of finding in the index of a large book, against the same in a small one. */
export async function findingAgainstSmall(large: number, small: number) {
  const today = isoDate('2026-12-31');
  const little = await indexBook('bench-index-small', small);
  const big = await indexBook('bench-index-large', large);
  const rows = [];
  for (const [name, query, filter] of WAYS) {
    const find = (db: BookDb) => findDocuments(db, query, 50, { ...NO_FILTER, ...filter }, today);
    rows.push({
      name,
      shown: (await find(big)).documents.length,
      read: await rowsRead(big, () => find(big)),
      smallRead: await rowsRead(little, () => find(little)),
      time: await timed(15, () => find(big)),
      smallTime: await timed(15, () => find(little)),
    });
  }
  return rows;
}
