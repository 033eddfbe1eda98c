import Dexie, { type Collection } from 'dexie';
import { type DocumentFilter, fits, NO_FILTER } from '@/core/documents/documentFilter';
import { amountKeyOf, type IssuedDocument } from '@/core/documents/issued';
import type { IsoDate } from '@/core/kernel/date';
import { searchParts } from '@/core/kernel/words';
import type { BookDb } from '../../schema';
import type { VocabularyWord } from '../../vocabulary';

/** Up to this many hits of a search are sorted by date; of more the first found are shown. */
const MOST_SORTED = 300;
/** Words of the vocabulary that a part may stand for; a shorter part is asked for more letters anyway. */
const MOST_WORDS = 400;

type Documents = Collection<IssuedDocument, string>;

/** What was found, newest first. */
export interface FoundDocuments {
  readonly documents: readonly IssuedDocument[];
  /** There is more than was asked for. */
  readonly more: boolean;
}

/** The words that hold a part, by the index of their endings. */
function wordsWith(db: BookDb, part: string) {
  return db.vocabulary.where('endings').startsWith(part).distinct();
}

/**
 * The words of the part that the fewest documents hold. A part that too many words hold is taken only for
 * want of another, and then wholly: cut short, it would hide documents that hold the other parts.
 */
async function rarestWords(db: BookDb, parts: readonly string[]): Promise<readonly VocabularyWord[]> {
  const found = await Promise.all(parts.map((part) => wordsWith(db, part).limit(MOST_WORDS).toArray()));
  const held = found.map((words) => words.filter((word) => word.count > 0));
  const [only] = held;
  if (only !== undefined && held.length === 1) return only;
  const whole = held.filter((_, i) => (found[i]?.length ?? 0) < MOST_WORDS);
  const size = (words: readonly VocabularyWord[]) => words.reduce((sum, { count }) => sum + count, 0);
  if (whole.length > 0) return whole.reduce((a, b) => (size(b) < size(a) ? b : a));
  const longest = parts.reduce((a, b) => (b.length > a.length ? b : a));
  return (await wordsWith(db, longest).toArray()).filter((word) => word.count > 0);
}

/** Above every day and every amount as text. */
const TOP = '\uffff';

const span = ({ from, until }: DocumentFilter): readonly [string, string] => [from, until === '' ? TOP : until];

/** The collection that a filter without a search is read through, newest first, by the narrowest index. */
function throughIndex(db: BookDb, filter: DocumentFilter): Documents {
  const { customerId, state, kinds } = filter;
  const [from, until] = span(filter);
  const within = (index: string, ...key: readonly unknown[]): Documents =>
    db.documents
      .where(index)
      .between([...key, from], [...key, until], true, true)
      .reverse() as unknown as Documents;
  if (customerId !== '') return within('[customerId+issueDate]', customerId);
  if (state === 'overdue' || state === 'open')
    return db.documents
      .where('[isOpen+kind+dueDate]')
      .between([1, Dexie.minKey], [1, Dexie.maxKey])
      .reverse() as unknown as Documents;
  if (state === 'lapsed') return within('[state+issueDate]', 'sent');
  if (state !== '') return within('[state+issueDate]', state);
  if (filter.tag !== '') return db.documents.where('tags').equals(filter.tag) as unknown as Documents;
  if (kinds.length === 1) return within('[kind+issueDate]', kinds[0]);
  if (filter.least !== '' || filter.most !== '')
    return db.documents
      .where('amountKey')
      .between(
        filter.least === '' ? '' : amountKeyOf(filter.least),
        filter.most === '' ? TOP : amountKeyOf(filter.most),
        true,
        true,
      )
      .reverse() as unknown as Documents;
  return db.documents
    .where('[issueDate+number]')
    .between([from, Dexie.minKey], [until, Dexie.maxKey], true, true)
    .reverse() as unknown as Documents;
}

const newestFirst = (a: IssuedDocument, b: IssuedDocument): number => {
  const [x, y] = [a.issueDate + a.number, b.issueDate + b.number];
  return x < y ? 1 : x > y ? -1 : 0;
};

/**
 * Documents that hold every part of a search and are within a filter, through indexes: a search goes
 * over the rarest of its parts in the vocabulary, a filter over its narrowest index.
 */
export async function findDocuments(
  db: BookDb,
  query: string,
  limit: number,
  filter: DocumentFilter,
  today: IsoDate,
): Promise<FoundDocuments> {
  const parts = searchParts(query);
  const within = (document: IssuedDocument) => fits(document, filter, parts, today);
  const first = (collection: Documents, most: number) =>
    collection
      .filter(within)
      .limit(most + 1)
      .toArray();
  if (parts.length === 0) {
    const found = await first(throughIndex(db, filter), limit);
    return { documents: found.slice(0, limit).sort(newestFirst), more: found.length > limit };
  }
  const words = await rarestWords(db, parts);
  if (words.length === 0) return { documents: [], more: false };
  const hits = words.reduce((sum, { count }) => sum + count, 0);
  const most = hits <= MOST_SORTED ? MOST_SORTED : limit;
  const through = db.documents
    .where('words')
    .anyOf(words.map(({ word }) => word))
    .distinct() as unknown as Documents;
  const found = (await first(through, most)).sort(newestFirst);
  return { documents: found.slice(0, limit), more: found.length > limit };
}

/** The same without a filter, as rows alone. */
export async function searchDocuments(
  db: BookDb,
  query: string,
  limit: number,
  today: IsoDate,
): Promise<readonly IssuedDocument[]> {
  if (searchParts(query).length === 0) return [];
  return (await findDocuments(db, query, limit, NO_FILTER, today)).documents;
}
