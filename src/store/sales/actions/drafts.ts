import { dropDraft, type StoredDraft, saveDraft } from '@/core/decisions/sales/draft';
import type { Draft } from '@/core/documents/draft';
import { loadSetting, SETTING_TABLES } from '../../load';
import type { Action } from '../../perform';
import type { BookDb } from '../../schema';

/** What the book holds under the id of a draft. */
function storedDraft(db: BookDb, id: string): Promise<StoredDraft> {
  return Promise.all([db.drafts.get(id), db.documents.where('id').equals(id).count()]).then(([draft, documents]) => ({
    draft,
    issued: documents > 0,
  }));
}

/** Keeps a draft as it is now; refused when another tab has kept a newer one. */
export const keepDraft: Action<Draft, Draft> = {
  name: 'begin draft',
  touches: ['drafts', 'customers', 'audit', ...SETTING_TABLES],
  async decide(db, draft, moment) {
    const [stored, customer] = await Promise.all([storedDraft(db, draft.id), db.customers.get(draft.customerId)]);
    return saveDraft(draft, stored, customer, await loadSetting(db, draft, customer ?? null), moment);
  },
};

export const deleteDraft: Action<{ draftId: string }, null> = {
  name: 'delete draft',
  touches: ['drafts', 'documents', 'attachments', 'audit'],
  async decide(db, { draftId }) {
    const [stored, files] = await Promise.all([
      storedDraft(db, draftId),
      db.attachments.where('ownerId').equals(draftId).primaryKeys(),
    ]);
    return dropDraft(stored, files);
  },
};
