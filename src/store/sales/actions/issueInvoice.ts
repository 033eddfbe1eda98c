import { type Consent, issue } from '@/core/decisions/sales/issue';
import type { DocumentLink } from '@/core/documents/issued';
import { refuse } from '@/core/kernel/result';
import { loadFamily, loadSetting } from '../../load';
import type { Action } from '../../perform';
import { advancesOf } from '../queries/advances';

/** Issues a draft. The draft must have been kept before. */
export const issueInvoice: Action<{ draftId: string; consent?: Consent }, DocumentLink> = {
  name: 'issue invoice',
  async decide(db, { draftId, consent = { overrun: false } }, moment) {
    const draft = await db.drafts.get(draftId);
    if (draft === undefined) return refuse({ code: 'already-issued', path: '' });
    if (draft.recurringId !== undefined || draft.runId !== undefined)
      return refuse({ code: 'invalid', path: '', wanted: 'recurring-is-made-when-due' });
    const takesOff = draft.lines.some((line) => line.takesOff !== undefined);
    const [customer, series, chart, family, advances] = await Promise.all([
      db.customers.get(draft.customerId),
      db.series.toArray(),
      db.accounts.toArray(),
      draft.origin?.how === 'stage' ? loadFamily(db, draft.familyId) : [],
      takesOff ? advancesOf(db, draft.customerId) : [],
    ]);
    const setting = await loadSetting(db, draft, customer ?? null);
    return issue({ draft, customer: customer ?? null, setting, series, chart, family, advances }, consent, moment);
  },
};
