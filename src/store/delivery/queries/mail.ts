import Dexie from 'dexie';
import type { Mail, MailFileData, MailPhase } from '@/core/delivery/mail';
import type { BookDb } from '../../schema';

const inPhase = (db: BookDb, phase: MailPhase) =>
  db.mails.where('[phase+since]').between([phase, Dexie.minKey], [phase, Dexie.maxKey]);

/** What was sent about a document by mail, newest first. */
export async function mailsAbout(db: BookDb, documentId: string): Promise<Mail[]> {
  const found = await db.mails.where('documentIds').equals(documentId).toArray();
  return found.sort((a, b) => (a.queuedAt < b.queuedAt ? 1 : -1));
}

/** What was sent to a customer about one thing that is no document, as a receipt, by its number; newest first. */
export async function mailsToCustomer(db: BookDb, customerId: string, about: string): Promise<Mail[]> {
  const own = db.mails.where('[customerId+queuedAt]').between([customerId, Dexie.minKey], [customerId, Dexie.maxKey]);
  return (await own.filter((mail) => mail.about === about).toArray()).reverse();
}

/** What is due to be sent or asked about now, longest due first. `now` is an instant. */
export function dueMails(db: BookDb, now: string, limit: number): Promise<Mail[]> {
  return db.mails.where('dueAt').between('0', now, true, true).limit(limit).toArray();
}

/** Messages of a phase, newest first. */
export function mailsIn(db: BookDb, phase: MailPhase, limit: number): Promise<Mail[]> {
  return inPhase(db, phase).reverse().limit(limit).toArray();
}

/** How many messages stand in a phase. */
export function countOfMails(db: BookDb, phase: MailPhase): Promise<number> {
  return inPhase(db, phase).count();
}

/** The bytes of the files of a message, in their order. */
export async function filesOfMail(db: BookDb, { files }: Pick<Mail, 'files'>): Promise<readonly MailFileData[]> {
  const found = await db.mailFiles.bulkGet(files.map(({ sha256 }) => sha256));
  return found.flatMap((one) => one ?? []);
}
