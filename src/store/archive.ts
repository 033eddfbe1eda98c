import { BOOK_TABLES, type BookContent, type BookTable } from '@/core/decisions/changes';
import { type Manifest, packArchive, unpackArchive } from '@/core/files/archive';
import { accept, type Result, refuse } from '@/core/kernel/result';
import { moveAccounts, moveCustomers, moveTax, openMoves } from './balances';
import { storageRefusal } from './perform';
import type { BookDb } from './schema';
import { vocabularyOf } from './vocabulary';

/** The whole book as one file, read in one transaction so that it is of one moment. */
export async function archiveBook(db: BookDb, writtenAt: string): Promise<Uint8Array> {
  const content = await db.transaction(
    'r',
    BOOK_TABLES.map((name) => db.table(name)),
    async () => {
      const tables: Partial<Record<BookTable, unknown[]>> = {};
      for (const name of BOOK_TABLES) tables[name] = await db.table(name).toArray();
      return tables as unknown as BookContent;
    },
  );
  return packArchive(content, writtenAt);
}

/**
 * Opens an archive in place of what the book holds now. Everything is checked first; then one
 * transaction empties and fills all tables, so that a refusal or a failure changes nothing.
 */
export async function openArchive(db: BookDb, bytes: Uint8Array): Promise<Result<Manifest>> {
  const unpacked = unpackArchive(bytes);
  if (!unpacked.ok) return unpacked;
  const { manifest, content } = unpacked.value;
  try {
    await db.transaction('rw', db.tables, async () => {
      for (const table of db.tables) await table.clear();
      for (const name of BOOK_TABLES) await db.table(name).bulkAdd([...content[name]]);
      await moveAccounts(db, content.journalLines);
      await moveTax(db, content.taxEntries);
      await moveCustomers(db, openMoves(content.documents, []));
      await db.vocabulary.bulkAdd([...vocabularyOf(content.documents)]);
    });
    return accept(manifest);
  } catch (error) {
    const refusal = storageRefusal(error);
    return refuse(refusal ?? { code: 'damaged', path: '', expected: 'rows that fit the book' });
  }
}
