import Dexie from 'dexie';
import { later } from '@/core/delivery/queue';
import { type Phase, SILENCE, type Transmission } from '@/core/delivery/transmission';
import type { BookDb } from '../../schema';

/** Transmissions of a phase since when they stand there, up to an instant. */
function inPhase(db: BookDb, phase: Phase, until: unknown = Dexie.maxKey) {
  return db.transmissions.where('[phase+since]').between([phase, Dexie.minKey], [phase, until]);
}

/** What was sent of a document, newest first. */
export async function transmissionsOf(db: BookDb, documentId: string): Promise<Transmission[]> {
  const found = await db.transmissions.where('documentId').equals(documentId).toArray();
  return found.sort((a, b) => (a.queuedAt < b.queuedAt ? 1 : -1));
}

/** What delivery has to do now, longest due first. `now` is an instant. */
export function dueTransmissions(db: BookDb, now: string, limit: number): Promise<Transmission[]> {
  return db.transmissions.where('dueAt').between('0', now, true, true).limit(limit).toArray();
}

/** Transmissions of a phase, newest first. */
export function transmissionsIn(db: BookDb, phase: Phase, limit: number): Promise<Transmission[]> {
  return inPhase(db, phase).reverse().limit(limit).toArray();
}

/** How many transmissions stand in a phase. */
export function countIn(db: BookDb, phase: Phase): Promise<number> {
  return inPhase(db, phase).count();
}

/** What needs the bookkeeper: what was answered with a question or a no, could not be sent, or met silence; oldest first. */
export async function askingTransmissions(db: BookDb, now: string, limit: number): Promise<Transmission[]> {
  const [asks, silent] = await Promise.all([
    inPhase(db, 'asks').limit(limit).toArray(),
    inPhase(db, 'unanswered', later(now, -SILENCE)).limit(limit).toArray(),
  ]);
  return [...asks, ...silent].slice(0, limit);
}
