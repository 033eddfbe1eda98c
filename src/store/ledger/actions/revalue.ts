import type { Revaluation } from '@/core/currency/revaluation';
import { type RevalueMaterial, revalue } from '@/core/decisions/ledger/revalue';
import { isIsoDate } from '@/core/kernel/date';
import { loadBook, ratesOn } from '../../load';
import type { Action } from '../../perform';
import type { BookDb } from '../../schema';
import { foreignItems } from '../queries/foreignItems';

function loadMaterial(db: BookDb, date: string): Promise<RevalueMaterial> {
  return Promise.all([loadBook(db), db.accounts.toArray(), db.revaluations.where('date').equals(date).toArray()]).then(
    ([{ business }, chart, earlier]) => {
      const { homeCurrency } = business;
      return foreignItems(db, homeCurrency, date).then((items) => {
        const booked = earlier.flatMap(({ currencies }) => currencies.map(({ currency }) => currency));
        const wanted = [...new Set([...items.map(({ currency }) => currency), ...booked])];
        const known = { items, earlier, chart, homeCurrency };
        // An empty answer without a look into the database would end the transaction this runs in.
        if (wanted.length === 0 || !isIsoDate(date)) return { ...known, rates: new Map() };
        return ratesOn(db, wanted, date).then((rates) => ({ ...known, rates }));
      });
    },
  );
}

/** Revalues what is open in other currencies at the end of a month; `date` is its last day. */
export const revalueOpenItems: Action<{ readonly date: string }, Revaluation> = {
  name: 'revalue open items',
  async decide(db, { date }, moment) {
    return revalue(await loadMaterial(db, date), date, moment);
  },
};
