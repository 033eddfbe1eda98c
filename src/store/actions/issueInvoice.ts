import { issue } from '@/core/decisions/issue';
import { refuse } from '@/core/kernel/result';
import { loadSetting, present } from '../load';
import type { Action } from '../perform';

/** Issues the draft as the next invoice. A draft that is gone was issued or deleted elsewhere. */
export const issueInvoice: Action<{ draftId: string }, { id: string; number: string }> = {
  name: 'issue invoice',
  async decide(db, { draftId }, moment) {
    const draft = await db.drafts.get(draftId);
    if (draft === undefined) return refuse({ code: 'already-issued', path: '' });
    const [customer, series, chart] = await Promise.all([
      db.customers.get(draft.customerId),
      db.series.get('invoice'),
      db.accounts.toArray(),
    ]);
    const setting = await loadSetting(db, draft, customer ?? null);
    return issue(
      { draft, customer: customer ?? null, setting, series: present(series, 'the invoice series'), chart },
      moment,
    );
  },
};
