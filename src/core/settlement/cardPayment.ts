import * as yup from 'yup';
import { CURRENCIES, type Currency } from '@/core/kernel/currency';
import { type IsoDate, isIsoDate } from '@/core/kernel/date';
import { dateText } from '@/core/kernel/validate';
import { wanted } from '@/core/kernel/wanted';

/** A payment by card as the card company tells it. */
export interface CardPayment {
  readonly id: string;
  /** Number of the invoice that was paid. */
  readonly number: string;
  /** Currency units, as text. */
  readonly amount: string;
  readonly currency: Currency;
  /** ISO dates; `disputedOn` is empty while the payment stands. */
  readonly on: IsoDate;
  readonly disputedOn: IsoDate | '';
}

export const cardPaymentSchema = yup.object({
  id: yup.string().max(40).required(),
  number: yup.string().max(80).required(),
  amount: yup
    .string()
    .matches(/^\d{1,12}(\.\d{1,3})?$/)
    .required(),
  currency: yup.string().oneOf(CURRENCIES).required(),
  on: dateText('give-a-day'),
  disputedOn: yup
    .string()
    .defined()
    .test('date', wanted('give-a-day'), (v) => v === '' || isIsoDate(v)),
});

/** The number that its receipt takes, by which it is known when it is told again. */
export function cardReceiptNumber({ id }: Pick<CardPayment, 'id'>): string {
  return `CARD-${id}`;
}
