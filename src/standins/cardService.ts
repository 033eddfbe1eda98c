import * as yup from 'yup';
import { validated } from '@/core/kernel/validate';
import { cardPaymentSchema } from '@/core/settlement/cardPayment';
import { type CardOrder, simulatedCardCompany } from './cardCompany';

const company = simulatedCardCompany();
const LARGEST = 2000;

const orderSchema = cardPaymentSchema
  .pick(['number', 'amount', 'currency', 'on'])
  .concat(yup.object({ card: yup.string().max(40).required() }));

const NO_ORDER = () => Response.json({ error: 'this is no order' }, { status: 400 });

/** Pays what the page of card payments asks for. */
export function answerCardOrder(text: string): Response {
  if (text.length > LARGEST) return NO_ORDER();
  try {
    const order = validated<CardOrder>(orderSchema, JSON.parse(text));
    if (!order.ok) return NO_ORDER();
    return Response.json({ result: company.pay(order.value) === null ? 'declined' : 'paid' });
  } catch {
    return NO_ORDER();
  }
}

/** All payments, for the business to take into its book. */
export function tellCardPayments(): Response {
  return Response.json(company.payments());
}
