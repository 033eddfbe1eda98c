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
    const itemIds = [...new Set(draft.lines.map((line) => line.itemId).filter(Boolean))];
    const [setting, customer, items, series, chart] = await Promise.all([
      loadSetting(db, draft.registrationId),
      db.customers.get(draft.customerId),
      db.items.bulkGet(itemIds),
      db.series.get('invoice'),
      db.accounts.toArray(),
    ]);
    return issue(
      {
        draft,
        customer: customer ?? null,
        items: items.filter((item) => item !== undefined),
        setting,
        series: present(series, 'the invoice series'),
        chart,
      },
      moment,
    );
  },
};
