import { accept } from '@/core/kernel/result';
import type { CardPayment } from '@/core/settlement/cardPayment';
import { takeCardPayment } from '@/store/payments/actions/cardPayment';
import { perform } from '@/store/perform';
import type { Job } from './runJobs';

/** Tells all payments by card; null where the card company can't be asked. */
export type CardCompany = () => Promise<readonly CardPayment[] | null>;

/** Payments by card taken into the book as they are told, each in a transaction of its own and none twice. */
export function cardJob(company: CardCompany): Job {
  return {
    what: 'Card payments',
    isDue: async (db) => ((await db.book.get('book'))?.business.cards?.page ?? '') !== '',
    async round(db, moment) {
      let taken = 0;
      for (const payment of (await company()) ?? []) {
        const result = await perform(db, takeCardPayment, payment, moment());
        if (!result.ok) return result;
        if (result.value === 'recorded' || result.value === 'disputed') taken++;
      }
      return accept(taken);
    },
  };
}
