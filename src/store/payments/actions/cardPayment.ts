import type { Decision } from '@/core/book/changes';
import { isIsoDate } from '@/core/kernel/date';
import { isDecimal } from '@/core/kernel/decimal';
import { NOTHING, readMoney } from '@/core/kernel/money';
import { accept, refuse } from '@/core/kernel/result';
import { type CardPayment, cardReceiptNumber } from '@/core/settlement/cardPayment';
import type { Action } from '../../perform';
import { dishonourReceipt } from './dishonour';
import { recordReceipt } from './recordReceipt';

/** What became of a payment that was told. */
export type CardOutcome = 'recorded' | 'disputed' | 'known' | 'unknown-invoice';

/**
 * Takes a payment by card into the book: a receipt for its invoice, what is more than is open on account; a dispute takes it
 * back as any payment that is returned. Told again, nothing happens.
 */
export const takeCardPayment: Action<CardPayment, CardOutcome> = {
  name: 'card payment',
  decide(db, payment, moment) {
    const number = cardReceiptNumber(payment);
    const { disputedOn, on, currency } = payment;
    const nothing = (value: CardOutcome): Decision<CardOutcome> => accept({ value, changes: { audit: null } });
    const did = (value: CardOutcome) => (made: Decision<unknown>) =>
      made.ok ? accept({ value, changes: made.value.changes }) : made;
    return Promise.all([
      db.receipts.where('number').equals(number).first(),
      db.documents.where('number').equals(payment.number).first(),
    ]).then(([receipt, document]): Decision<CardOutcome> | Promise<Decision<CardOutcome>> => {
      if (receipt !== undefined) {
        if (!isIsoDate(disputedOn) || receipt.dishonoured !== null) return nothing('known');
        const back = { receiptId: receipt.id, date: disputedOn, reason: 'Disputed by the card holder', fee: NOTHING };
        return dishonourReceipt.decide(db, back, moment).then(did('disputed'));
      }
      if (document === undefined || document.content.currency !== currency) return nothing('unknown-invoice');
      const amount = isDecimal(payment.amount) ? readMoney(payment.amount, currency) : null;
      if (amount === null || amount <= 0n) return refuse({ code: 'invalid', path: 'amount', wanted: 'give-amount' });
      const settled = document.open < amount ? document.open : amount;
      const to = settled > 0n ? [{ documentId: document.id, number: document.number, money: settled }] : [];
      const input = {
        customerId: document.customerId,
        date: on,
        number,
        reference: `Card payment of ${document.number}`,
        currency,
        parts: [{ method: 'card', amount }],
        to,
        agreed: true,
      } as const;
      return recordReceipt.decide(db, input, moment).then(did('recorded'));
    });
  },
};
