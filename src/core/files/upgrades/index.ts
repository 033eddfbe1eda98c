import type { BookContent } from '@/core/book/tables';
import { amountKey, documentWords, type IssuedDocument, restated } from '@/core/documents/issued';
import { upgradeV1 } from './v1';
import { upgradeV2 } from './v2';
import { upgradeV3 } from './v3';
import { upgradeV4 } from './v4';
import { upgradeV5 } from './v5';
import { upgradeV6 } from './v6';
import { upgradeV7 } from './v7';
import { upgradeV8 } from './v8';
import { upgradeV9 } from './v9';
import { upgradeV10 } from './v10';

/** Rows by table, of whatever version. */
export type OldBook = Readonly<Record<string, readonly unknown[]>>;

/** What leads from a version to the next: the tables it reads, and those it writes anew from them. */
export interface Upgrade {
  readonly reads: readonly string[];
  readonly write: (book: OldBook) => OldBook;
}

/** Each upgrade names the rows it reads in its own words; nothing vouches for them but the book's version. */
const upgrade = <Old>(reads: readonly (keyof Old & string)[], write: (old: Old) => OldBook): Upgrade => ({
  reads,
  write: (book) => write(book as Old),
});

/** From each version to the next, version 1 first. */
export const UPGRADES: readonly Upgrade[] = [
  upgrade(
    ['book', 'registrations', 'taxCodes', 'customers', 'items', 'accounts', 'drafts', 'taxEntries', 'taxPeriods'],
    upgradeV1,
  ),
  upgrade(['book', 'accounts', 'series', 'customers', 'drafts', 'documents', 'receipts'], upgradeV2),
  upgrade(['book', 'customers', 'attachments'], upgradeV3),
  upgrade(['book', 'withholdingTypes', 'accounts', 'styles', 'customers', 'taxEntries', 'documents'], upgradeV4),
  upgrade(['accounts', 'series', 'documents', 'receipts', 'journalLines', 'taxEntries'], upgradeV5),
  upgrade(['accounts', 'registrations', 'documents', 'receipts', 'refunds', 'journalLines'], upgradeV6),
  upgrade(['accounts'], upgradeV7),
  upgrade(['book', 'accounts'], upgradeV8),
  upgrade(['accounts'], upgradeV9),
  upgrade([], upgradeV10),
];

/** What of a document's row follows from the rest of it, as it is worked out today: its state, its day, its words. */
function workedOut(document: IssuedDocument): IssuedDocument {
  const { content, figures } = document;
  return restated({ ...document, amountKey: amountKey(figures), words: documentWords(content, figures, document) });
}

/** Once a book is brought up: what follows from truth in its rows is worked out anew. */
export function workOut(documents: BookContent['documents']): BookContent['documents'] {
  return documents.map(workedOut);
}

/** The content of a book of a version in today's shape. @throws where rows are not of that version. */
export function broughtUp(content: OldBook, version: number): BookContent {
  let book = content;
  for (const { write } of UPGRADES.slice(version - 1)) book = { ...book, ...write(book) };
  const today = book as unknown as BookContent;
  return version > UPGRADES.length ? today : { ...today, documents: workOut(today.documents) };
}
