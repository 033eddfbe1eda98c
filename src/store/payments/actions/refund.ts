import { type RefundInput, refund } from '@/core/decisions/payments/refund';
import { seriesFor } from '@/core/documents/series';
import { isIsoDate } from '@/core/kernel/date';
import { leftOfCredit } from '@/core/settlement/allocation';
import type { Refund } from '@/core/settlement/refund';
import { present, ratesOn } from '../../load';
import type { Action } from '../../perform';
import { creditOf } from './allocate';

/** Gives money back that is on account, or that a credit note holds. */
export const refundCredit: Action<RefundInput, Refund> = {
  name: 'refund',
  async decide(db, input, moment) {
    const { creditId, date } = input;
    const [receipt, note, ofCredit, series, chart, registrations, book] = await Promise.all([
      db.receipts.get(creditId),
      db.documents.get(creditId),
      db.allocations.where('creditId').equals(creditId).toArray(),
      db.series.toArray(),
      db.accounts.toArray(),
      db.registrations.toArray(),
      db.book.get('book'),
    ]);
    const { homeCurrency } = present(book, 'the book').business;
    const credit = creditOf(receipt, note);
    const currency = credit === undefined ? homeCurrency : leftOfCredit(credit).currency;
    const rates = currency !== homeCurrency && isIsoDate(date) ? await ratesOn(db, [currency], date) : null;
    return refund(
      input,
      {
        credit,
        customerName: receipt?.customerName ?? note?.customerName ?? '',
        ofCredit,
        series: present(seriesFor(series, 'refund', note?.content.registrationId ?? ''), 'the refund series'),
        chart,
        registrations,
        homeCurrency,
        rate: rates?.get(currency) ?? null,
      },
      moment,
    );
  },
};
