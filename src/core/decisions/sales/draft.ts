import type { Decision, Moment } from '@/core/book/changes';
import { joinChanges } from '@/core/book/joinChanges';
import { type Attachment, filesFor } from '@/core/documents/attachment';
import type { Draft } from '@/core/documents/draft';
import { holdTaxes } from '@/core/documents/draftTaxes';
import type { Setting } from '@/core/documents/setting';
import { accept, refuse } from '@/core/kernel/result';
import { searchKeys } from '@/core/kernel/words';
import type { Customer } from '@/core/parties/customer';

/** What the book holds under the id of a draft. */
export interface StoredDraft {
  readonly draft: Draft | undefined;
  /** A document has that id: the draft was issued. */
  readonly issued: boolean;
}

export const NOTHING_STORED: StoredDraft = { draft: undefined, issued: false };

/**
 * Saves a draft. A draft of another revision than the stored one was changed elsewhere in the
 * meantime, or issued, and is refused so that neither change is lost.
 */
export function saveDraft(
  draft: Draft,
  { draft: stored, issued }: StoredDraft,
  customer: Customer | undefined,
  setting: Setting,
  moment: Moment,
): Decision<Draft> {
  if (issued) return refuse({ code: 'already-issued', path: '' });
  const isNew = draft.revision === 0;
  if (stored === undefined && !isNew) return refuse({ code: 'not-found', path: '' });
  if (stored !== undefined && stored.revision !== draft.revision) return refuse({ code: 'stale', path: '' });
  const saved: Draft = {
    ...draft,
    revision: draft.revision + 1,
    held: holdTaxes(draft, customer ?? null, setting),
    savedAt: moment.now,
    keys: searchKeys([
      'draft',
      draft.kind,
      customer?.name ?? '',
      draft.buyerReference,
      draft.orderNumber,
      draft.subject,
    ]),
  };
  return accept({
    value: saved,
    changes: {
      put: { drafts: [saved] },
      audit: isNew ? { subject: `Draft for ${customer?.name ?? 'nobody yet'}`, about: [draft.id] } : null,
    },
  });
}

/**
 * Keeps a new draft that is made of a document.
 * @param files of the document, where the draft takes its place; the draft has copies of them.
 */
export function beginDraft(
  draft: Draft,
  files: readonly Attachment[],
  customer: Customer | undefined,
  setting: Setting,
  moment: Moment,
): Decision<Draft> {
  const kept = saveDraft(draft, NOTHING_STORED, customer, setting, moment);
  if (!kept.ok) return kept;
  const copies = { add: { attachments: filesFor(draft.id, files, moment.newId) }, audit: null };
  return accept({ value: kept.value.value, changes: joinChanges(kept.value, { changes: copies }) });
}

/** Deletes a draft, and with it the files that were kept with it. */
export function dropDraft({ draft: stored, issued }: StoredDraft, attachmentIds: readonly string[]): Decision<null> {
  // Its files are the document's now.
  if (issued) return refuse({ code: 'already-issued', path: '' });
  if (stored === undefined) return refuse({ code: 'not-found', path: '' });
  return accept({
    value: null,
    changes: {
      remove: { drafts: [stored.id], attachments: attachmentIds },
      audit: { subject: 'Draft', about: [stored.id], before: stored },
    },
  });
}
