import { answerCardOrder, tellCardPayments } from '@/standins/cardService';

/** The simulated card company: POST an order to pay it, GET all payments. */
export async function POST(request: Request): Promise<Response> {
  return answerCardOrder(await request.text());
}

export function GET(): Response {
  return tellCardPayments();
}
