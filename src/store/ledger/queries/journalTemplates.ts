import { dayOf } from '@/core/kernel/date';
import type { JournalTemplate } from '@/core/ledger/journalTemplate';
import type { BookDb } from '../../schema';

/** All templates of journals, by name. */
export async function journalTemplates(db: BookDb): Promise<readonly JournalTemplate[]> {
  return (await db.journalTemplates.toArray()).sort((a, b) => (a.name < b.name ? -1 : 1));
}

/** Journals that repeat and are due. `now` is an instant. */
export function dueJournals(db: BookDb, now: string): Promise<JournalTemplate[]> {
  return db.journalTemplates.where('nextDue').between('0', dayOf(now), true, true).toArray();
}
