import { saveView } from '@/core/decisions/sales/annotate';
import { type SeriesInput, saveSeries } from '@/core/decisions/setup/series';
import type { SavedView } from '@/core/documents/documentFilter';
import type { Series } from '@/core/documents/series';
import { accept } from '@/core/kernel/result';
import type { Action } from '../../perform';

export const keepView: Action<SavedView, SavedView> = {
  name: 'keep view',
  async decide(_, view) {
    return saveView(view);
  },
};

export const dropView: Action<{ id: string }, null> = {
  name: 'drop view',
  async decide(_, { id }) {
    return accept({ value: null, changes: { remove: { savedViews: [id] }, audit: null } });
  },
};

/** Keeps how a kind of document is numbered. */
export const keepSeries: Action<SeriesInput, Series> = {
  name: 'keep series',
  async decide(db, input, moment) {
    return saveSeries(input, await db.series.toArray(), moment.today);
  },
};
