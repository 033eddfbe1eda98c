import type { Decision } from '@/core/book/changes';
import { beginDraft, NOTHING_STORED, saveDraft } from '@/core/decisions/sales/draft';
import { answerQuote, sendQuote, versionFault } from '@/core/decisions/sales/quote';
import type { Draft } from '@/core/documents/draft';
import { draftFrom } from '@/core/documents/draftFrom';
import type { DocumentLink, QuoteAnswer } from '@/core/documents/issued';
import { quotedParts, type StageRequest, stageDraft } from '@/core/documents/stages';
import { accept, refuse } from '@/core/kernel/result';
import { loadFamily, loadSetting, present } from '../../load';
import type { Action } from '../../perform';

/** Sends a quote draft; one that came from a sent quote becomes its next version. */
export const sendQuoteDraft: Action<{ draftId: string }, DocumentLink> = {
  name: 'send quote',
  async decide(db, { draftId }, moment) {
    const draft = await db.drafts.get(draftId);
    if (draft === undefined) return refuse({ code: 'already-issued', path: '' });
    const [customer, series, before] = await Promise.all([
      db.customers.get(draft.customerId),
      db.series.toArray(),
      db.documents.get(draft.origin?.how === 'version' ? draft.origin.documentId : ''),
    ]);
    const setting = await loadSetting(db, draft, customer ?? null);
    return sendQuote({ draft, customer: customer ?? null, setting, series, before }, moment);
  },
};

/** Writes down that a quote was accepted or declined. */
export const keepAnswer: Action<{ documentId: string; answer: QuoteAnswer }, null> = {
  name: 'answer quote',
  async decide(db, { documentId, answer }) {
    const document = await db.documents.get(documentId);
    return document === undefined ? refuse({ code: 'not-found', path: 'documentId' }) : answerQuote(document, answer);
  },
};

/** Begins an invoice over a stage of a quote, and gives the id of its draft. */
export const beginStage: Action<{ documentId: string; request: StageRequest; issueDate: string }, { draftId: string }> =
  {
    name: 'bill stage',
    async decide(db, { documentId, request, issueDate }, moment) {
      const quote = await db.documents.get(documentId);
      if (quote === undefined || quote.quote === null) return refuse({ code: 'not-found', path: 'documentId' });
      if (quote.quote.replacedBy !== null)
        return refuse({ code: 'replaced', path: '', by: quote.quote.replacedBy.number });
      const [family, customer] = await Promise.all([
        loadFamily(db, quote.familyId),
        db.customers.get(quote.customerId),
      ]);
      const due = present(customer, 'the customer').terms;
      const draft = stageDraft(quote, quotedParts(quote, family), request, { id: moment.newId(), issueDate, due });
      if (draft.lines.length === 0) return refuse({ code: 'missing', path: 'stage', wanted: 'something-to-bill' });
      const setting = await loadSetting(db, draft, customer ?? null);
      return kept(saveDraft(draft, NOTHING_STORED, customer, setting, moment));
    },
  };

/** What a new draft is made of an issued document for. */
export type Remake = 'copy' | 'version' | 'invoice';

/** Begins a draft that says what an issued document says: a copy, or the next version of a quote. */
export const remake: Action<{ documentId: string; as: Remake; issueDate: string }, { draftId: string }> = {
  name: 'begin draft',
  async decide(db, { documentId, as, issueDate }, moment) {
    const document = await db.documents.get(documentId);
    if (document === undefined) return refuse({ code: 'not-found', path: 'documentId' });
    const fault = as === 'version' ? versionFault(document) : null;
    if (fault !== null) return refuse(fault);
    const customer = await db.customers.get(document.customerId);
    const quote = document.kind === 'quote' && as !== 'invoice';
    const draft = draftFrom(document, {
      id: moment.newId(),
      kind: quote ? 'quote' : document.content.paidBy === undefined ? 'invoice' : 'cash-sale',
      origin: {
        how: as === 'version' ? 'version' : 'copy',
        documentId,
        number: document.number,
        words: '',
        by: 'sum',
      },
      issueDate,
      due: quote ? '1m' : (customer?.terms ?? '30d'),
    });
    const setting = await loadSetting(db, draft, customer ?? null);
    const files = as === 'version' ? await db.attachments.where('ownerId').equals(documentId).toArray() : [];
    return kept(beginDraft(draft, files, customer, setting, moment));
  },
};

function kept(decision: Decision<Draft>): Decision<{ draftId: string }> {
  if (!decision.ok) return decision;
  const { value, changes } = decision.value;
  return accept({ value: { draftId: value.id }, changes });
}
