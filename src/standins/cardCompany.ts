import type { Currency } from '@/core/kernel/currency';
import type { IsoDate } from '@/core/kernel/date';
import type { CardPayment } from '@/core/settlement/cardPayment';

/** What the page of card payments asks to be paid. */
export interface CardOrder {
  readonly number: string;
  readonly amount: string;
  readonly currency: Currency;
  /** Figures of the card. */
  readonly card: string;
  readonly on: IsoDate;
}

/** Payments that are remembered; a stand-in needs no more. */
const MOST = 1000;

/**
 * A simulated card company. Scripted by the card so that demos and tests are repeatable: a card that ends in 02 is declined,
 * one that ends in 09 pays and is disputed at once; all others of 12 to 19 figures pay.
 */
export function simulatedCardCompany() {
  const payments: CardPayment[] = [];
  return {
    /** The payment; null where the card is declined. */
    pay({ number, amount, currency, card, on }: CardOrder): CardPayment | null {
      const figures = card.replace(/\D/g, '');
      if (figures.length < 12 || figures.length > 19 || figures.endsWith('02') || payments.length >= MOST) return null;
      const id = `SIM-${on.replaceAll('-', '')}-${String(payments.length + 1).padStart(4, '0')}`;
      const made = { id, number, amount, currency, on, disputedOn: figures.endsWith('09') ? on : ('' as const) };
      payments.push(made);
      return made;
    },
    payments: (): readonly CardPayment[] => payments,
  };
}
