import type { AuditEvent } from '@/core/book/rows';
import type { Mail } from '@/core/delivery/mail';
import type { Transmission } from '@/core/delivery/transmission';
import { type Attachment, goingOut } from '@/core/documents/attachment';
import type { Draft } from '@/core/documents/draft';
import type { IssuedDocument } from '@/core/documents/issued';
import { grouped } from '@/core/kernel/grouped';
import type { JournalLine } from '@/core/ledger/entry';
import type { Allocation } from '@/core/settlement/allocation';
import type { Receipt } from '@/core/settlement/receipt';
import type { Withheld } from '@/core/settlement/withholding';
import { mailsAbout } from '../../delivery/queries/mail';
import { transmissionsOf } from '../../delivery/queries/sent';
import { loadFamily } from '../../load';
import type { BookDb } from '../../schema';
import { allocationsOf, receiptsOf } from './documents';

/** A document with all that stands behind and beside it. */
export interface DocumentFile {
  readonly document: IssuedDocument;
  readonly family: readonly IssuedDocument[];
  readonly drafts: readonly Draft[];
  /** Receipts that settle any document of the family. */
  readonly receipts: readonly Receipt[];
  /** What was made of the document with credits or debts, undone ones too, in order. */
  readonly allocations: readonly Allocation[];
  /** What was kept back of it. */
  readonly withheld: readonly Withheld[];
  /** Lines of its entry, and of the one that cancelled it. */
  readonly lines: readonly JournalLine[];
  readonly attachments: readonly Attachment[];
  /** What was sent of it as e-invoice, newest first. */
  readonly transmissions: readonly Transmission[];
  /** What was sent about it by mail, newest first. */
  readonly mails: readonly Mail[];
  /** What happened to it, oldest first. */
  readonly events: readonly AuditEvent[];
}

/** Everything the sheet of an issued document shows; null when the book holds none of this id. */
export async function documentFile(db: BookDb, id: string): Promise<DocumentFile | null> {
  const document = await db.documents.get(id);
  if (document === undefined) return null;
  const family = await loadFamily(db, document.familyId);
  const entries = [document.entryId, document.cancelled?.entryId ?? ''].filter(Boolean);
  const [drafts, receipts, allocations, withheld, lines, attachments, transmissions, mails, events] = await Promise.all(
    [
      db.drafts.where('familyId').equals(document.familyId).toArray(),
      receiptsOf(
        db,
        family.map((member) => member.id),
      ),
      allocationsOf(db, [id]),
      db.withheld.where('documentId').equals(id).toArray(),
      db.journalLines.where('entryId').anyOf(entries).toArray(),
      attachmentsOf(db, id),
      transmissionsOf(db, id),
      mailsAbout(db, id),
      historyOf(db, id),
    ],
  );
  return {
    document,
    family,
    drafts,
    receipts,
    allocations,
    withheld,
    lines,
    attachments,
    transmissions,
    mails,
    events,
  };
}

/** Files kept with a draft, a document or a customer, oldest first. */
export async function attachmentsOf(db: BookDb, ownerId: string): Promise<Attachment[]> {
  const found = await db.attachments.where('ownerId').equals(ownerId).toArray();
  return found.sort((a, b) => (a.addedAt < b.addedAt ? -1 : 1));
}

/** Every event that concerns an object, oldest first. */
export async function historyOf(db: BookDb, about: string): Promise<AuditEvent[]> {
  const events = await db.audit.where('about').equals(about).toArray();
  return events.sort((a, b) => (a.at < b.at ? -1 : a.at > b.at ? 1 : 0));
}

/** Names of the files that go along with each of some documents. */
export async function filesGoingOut(
  db: BookDb,
  documentIds: readonly string[],
): Promise<ReadonlyMap<string, readonly string[]>> {
  const found = await db.attachments.where('ownerId').anyOf(documentIds).toArray();
  const files = grouped(goingOut(found), ({ ownerId }) => ownerId);
  return new Map([...files].map(([id, own]) => [id, own.map(({ name }) => name)]));
}
