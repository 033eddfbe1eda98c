import { type JournalInput, postJournal } from '@/core/decisions/ledger/journal';
import type { Action } from '../../perform';

/** Writes a manual journal. */
export const writeJournal: Action<JournalInput, { id: string }> = {
  name: 'write journal',
  async decide(db, input, moment) {
    const [chart, registrations] = await Promise.all([db.accounts.toArray(), db.registrations.toArray()]);
    return postJournal(input, chart, registrations, moment);
  },
};
