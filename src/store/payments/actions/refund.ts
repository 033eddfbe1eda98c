import { type RefundInput, refund, undoRefund as takeBack } from '@/core/decisions/payments/refund';
import { seriesFor } from '@/core/documents/series';
import { isIsoDate } from '@/core/kernel/date';
import { leftOfCredit } from '@/core/settlement/allocation';
import type { Refund } from '@/core/settlement/refund';
import { present, ratesOn } from '../../load';
import type { Action } from '../../perform';
import { creditOf } from '../queries/credits';

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

/** Takes a refund back by its id. */
export const undoRefund: Action<{ readonly id: string; readonly date: string }, Refund> = {
  name: 'undo refund',
  async decide(db, input, moment) {
    const given = await db.refunds.get(input.id);
    const [[made], lines, chart, registrations] = await Promise.all([
      db.allocations.where('debtId').equals(input.id).toArray(),
      db.journalLines
        .where('entryId')
        .equals(given?.entryId ?? '')
        .toArray(),
      db.accounts.toArray(),
      db.registrations.toArray(),
    ]);
    const creditId = made?.creditId ?? '';
    const [receipt, note, ofCredit] = await Promise.all([
      db.receipts.get(creditId),
      db.documents.get(creditId),
      db.allocations.where('creditId').equals(creditId).toArray(),
    ]);
    return takeBack(
      input,
      { refund: given, credit: creditOf(receipt, note), ofCredit, lines, chart, registrations },
      moment,
    );
  },
};
