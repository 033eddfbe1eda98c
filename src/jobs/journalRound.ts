import { accept } from '@/core/kernel/result';
import { postJournalAgain } from '@/store/ledger/actions/writeJournal';
import { dueJournals } from '@/store/ledger/queries/journalTemplates';
import { perform } from '@/store/perform';
import type { Job } from './runJobs';

/** Posts journals that repeat, each day by itself, until none is due. */
export const journalJob: Job = {
  what: 'Repeating journals',
  isDue: async (db, now) => (await dueJournals(db, now)).length > 0,
  round: async (db, moment) => {
    const due = await dueJournals(db, moment().now);
    for (const { id } of due) {
      const posted = await perform(db, postJournalAgain, { templateId: id }, moment());
      if (!posted.ok) return posted;
    }
    return accept(due.length);
  },
};
