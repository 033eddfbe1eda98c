import type { IssuedDocument } from '@/core/documents/issued';
import type { BookDb } from '../../schema';

/** Credit notes on any of these documents. */
export function notesOf(db: BookDb, documents: readonly (IssuedDocument | undefined)[]): Promise<IssuedDocument[]> {
  const ids = documents.flatMap((document) => document?.creditNotes.map(({ id }) => id) ?? []);
  return db.documents.bulkGet(ids).then((notes) => notes.flatMap((note) => note ?? []));
}
