import {
  endRepeat,
  type JournalInput,
  type JournalMaterial,
  postJournal,
  postRepeat,
  reverseJournal,
} from '@/core/decisions/ledger/journal';
import { accept, refuse } from '@/core/kernel/result';
import type { JournalTemplate } from '@/core/ledger/journalTemplate';
import type { Action } from '../../perform';
import type { BookDb } from '../../schema';

function journalMaterial(db: BookDb): Promise<JournalMaterial> {
  return Promise.all([db.accounts.toArray(), db.registrations.toArray()]).then(([chart, registrations]) => ({
    chart,
    registrations,
  }));
}

/** Writes a manual journal, and keeps it as a template where that is asked for. */
export const writeJournal: Action<JournalInput, { readonly id: string }> = {
  name: 'write journal',
  async decide(db, input, moment) {
    return postJournal(input, await journalMaterial(db), moment);
  },
};

/** Takes a manual journal back on a day. */
export const takeBackJournal: Action<{ readonly entryId: string; readonly date: string }, { readonly id: string }> = {
  name: 'take back journal',
  async decide(db, { entryId, date }, moment) {
    const [entry, lines, material] = await Promise.all([
      db.journal.get(entryId),
      db.journalLines.where('entryId').equals(entryId).toArray(),
      journalMaterial(db),
    ]);
    if (entry === undefined) return refuse({ code: 'not-found', path: 'entry' });
    return reverseJournal({ entry, lines }, date, material, moment);
  },
};

/** Posts a journal that repeats for its next day. */
export const postJournalAgain: Action<{ readonly templateId: string }, JournalTemplate> = {
  name: 'post repeating journal',
  async decide(db, { templateId }, moment) {
    const [template, material, book] = await Promise.all([
      db.journalTemplates.get(templateId),
      journalMaterial(db),
      db.book.get('book'),
    ]);
    return postRepeat(template, { ...material, lockedUntil: book?.lockedUntil ?? '' }, moment);
  },
};

/** Ends the repeating of a journal. */
export const endJournalRepeat: Action<{ readonly templateId: string }, JournalTemplate> = {
  name: 'end repeating journal',
  async decide(db, { templateId }) {
    return endRepeat(await db.journalTemplates.get(templateId));
  },
};

/** Takes a template away; what was posted from it stays. */
export const removeJournalTemplate: Action<{ readonly templateId: string }, null> = {
  name: 'remove journal template',
  async decide(db, { templateId }) {
    const template = await db.journalTemplates.get(templateId);
    if (template === undefined) return refuse({ code: 'not-found', path: 'template' });
    return accept({
      value: null,
      changes: { remove: { journalTemplates: [templateId] }, audit: { subject: template.name, about: [templateId] } },
    });
  },
};
