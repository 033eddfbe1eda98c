import Dexie from 'dexie';
import type { Draft } from '@/core/documents/draft';
import type { Recurring, RecurringMade } from '@/core/documents/recurring';
import type { IsoDate } from '@/core/kernel/date';
import type { BookDb } from '../../schema';

/** A recurring document with what it says and for whom. */
export interface RecurringFile {
  readonly recurring: Recurring;
  readonly pattern: Draft | null;
  readonly customer: string;
}

async function filesOf(db: BookDb, all: readonly Recurring[]): Promise<readonly RecurringFile[]> {
  const patterns = await db.drafts.bulkGet(all.map(({ id }) => id));
  const customers = await db.customers.bulkGet(patterns.map((one) => one?.customerId || '-'));
  return all.map((recurring, i) => ({
    recurring,
    pattern: patterns[i] ?? null,
    customer: customers[i]?.name ?? '',
  }));
}

/** All recurring documents, those that come next first; paused and ended ones last. */
export async function recurringDocuments(db: BookDb): Promise<readonly RecurringFile[]> {
  const all = await db.recurring.toArray();
  const order = ({ nextDue, name }: Recurring) => `${nextDue || '~'} ${name}`;
  return filesOf(
    db,
    all.sort((a, b) => (order(a) < order(b) ? -1 : 1)),
  );
}

/** One recurring document; null where there is none of this id. */
export async function recurringFile(db: BookDb, id: string): Promise<RecurringFile | null> {
  const recurring = await db.recurring.get(id);
  if (recurring === undefined) return null;
  return (await filesOf(db, [recurring]))[0] ?? null;
}

/** What was made of a recurring document, newest first, with the number of what was issued. */
export async function madeOfRecurring(
  db: BookDb,
  id: string,
  limit: number,
): Promise<readonly { readonly made: RecurringMade; readonly number: string }[]> {
  const made = await db.recurringMade
    .where('[recurringId+date]')
    .between([id, Dexie.minKey], [id, Dexie.maxKey])
    .reverse()
    .limit(limit)
    .toArray();
  const documents = await db.documents.bulkGet(made.map(({ documentId }) => documentId));
  return made.map((one, i) => ({ made: one, number: documents[i]?.number ?? '' }));
}

/** Recurring documents that are due on or before a day, longest due first. */
export function dueRecurring(db: BookDb, today: IsoDate, limit: number): Promise<Recurring[]> {
  return db.recurring.where('nextDue').between('0', today, true, true).limit(limit).toArray();
}

/** Dates that something is still done with: to be issued, or to be sent. */
export function goingRecurring(db: BookDb, limit: number): Promise<RecurringMade[]> {
  return db.recurringMade.where('isGoing').equals(1).limit(limit).toArray();
}

/** What waits for a person and was not settled meanwhile: its draft is still there. */
export async function waitingRecurring(
  db: BookDb,
  limit: number,
): Promise<readonly { readonly made: RecurringMade; readonly draft: Draft; readonly name: string }[]> {
  const waiting = await db.recurringMade.where('state').equals('waits').limit(limit).toArray();
  const [drafts, recurring] = await Promise.all([
    db.drafts.bulkGet(waiting.map(({ documentId }) => documentId)),
    db.recurring.bulkGet(waiting.map(({ recurringId }) => recurringId)),
  ]);
  return waiting.flatMap((made, i) => {
    const draft = drafts[i];
    return draft === undefined ? [] : [{ made, draft, name: recurring[i]?.name ?? '' }];
  });
}
