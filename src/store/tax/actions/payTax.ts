import { type PayTaxInput, payTax, undoTaxPayment } from '@/core/decisions/tax/payTax';
import { isIsoDate } from '@/core/kernel/date';
import { NOTHING } from '@/core/kernel/money';
import { refuse } from '@/core/kernel/result';
import { periodIdOf } from '@/core/returns/calendar';
import type { TaxPayment } from '@/core/returns/taxPayment';
import { loadBook } from '../../load';
import type { Action } from '../../perform';
import { owedReturns } from '../queries/owed';

/** Pays the authority for a filed return, or takes back what it owes. */
export const payAuthority: Action<PayTaxInput, TaxPayment> = {
  name: 'pay authority',
  async decide(db, input, moment) {
    const registration = await db.registrations.get(input.registrationId);
    if (registration === undefined || !isIsoDate(input.start)) return refuse({ code: 'not-found', path: 'period' });
    const id = periodIdOf(registration.id, input.start);
    const [period, chart, { business }] = await Promise.all([
      db.taxPeriods.get(id),
      db.accounts.toArray(),
      loadBook(db),
    ]);
    if (period === undefined) return refuse({ code: 'not-found', path: 'period' });
    const { returns, setOff } = await owedReturns(db, registration, chart);
    const owed = returns.find(({ periodId }) => periodId === id) ?? { periodId: id, payable: NOTHING, payments: [] };
    return payTax(
      { registration, period, owed, all: returns, setOff, chart, homeCurrency: business.homeCurrency },
      input,
      moment,
    );
  },
};

/** Takes a payment to an authority back. */
export const undoAuthorityPayment: Action<{ readonly id: string; readonly date: string }, null> = {
  name: 'undo payment to authority',
  async decide(db, { id, date }, moment) {
    const payment = await db.taxPayments.get(id);
    if (payment === undefined) return refuse({ code: 'not-found', path: 'id' });
    const lines = await db.journalLines.where('entryId').equals(payment.entryId).toArray();
    return undoTaxPayment(payment, lines, date, moment);
  },
};
