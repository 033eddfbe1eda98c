import { file } from '@/core/decisions/tax/fileReturn';
import { isIsoDate } from '@/core/kernel/date';
import { refuse } from '@/core/kernel/result';
import { periodIdOf } from '@/core/returns/calendar';
import { prove } from '@/core/returns/proof';
import { addToBalances, type TaxPeriod } from '@/core/returns/return';
import { loadBook } from '../../load';
import type { Action } from '../../perform';
import { proofMaterial } from '../queries/proofMaterial';

/** Proves and files the return of one period. `start` is the period's first day. */
export const fileReturn: Action<{ registrationId: string; start: string; note: string }, TaxPeriod> = {
  name: 'file return',
  async decide(db, { registrationId, start, note }, moment) {
    const registration = await db.registrations.get(registrationId);
    if (registration === undefined || !isIsoDate(start)) return refuse({ code: 'not-found', path: 'period' });
    const [material, chart, book, boxes] = await Promise.all([
      proofMaterial(db, registration, start),
      db.accounts.toArray(),
      loadBook(db),
      db.returnBoxes.get(periodIdOf(registrationId, start)),
    ]);
    // What is filed is summed from the entries themselves, not from the balances kept beside them.
    const balances = addToBalances([], material.taxEntries);
    return file(
      {
        registration,
        balances,
        proof: prove(material),
        chart,
        homeCurrency: book.business.homeCurrency,
        typed: boxes?.typed ?? [],
      },
      start,
      note,
      moment,
    );
  },
};
