import { act, documentOf, EUR, issued, lineOf, momentOn, newBook } from 'tests/book';
import { expectSoundBook } from 'tests/soundBook';
import { PLAIN_STYLE } from '@/core/documents/style';
import { isoDate } from '@/core/kernel/date';
import { cardJob } from '@/jobs/cardRound';
import { runJobs } from '@/jobs/runJobs';
import { printed } from '@/print/words';
import { simulatedCardCompany } from '@/standins/cardCompany';
import { answerCardOrder, tellCardPayments } from '@/standins/cardService';
import { loadBook } from '../load';
import type { BookDb } from '../schema';
import { changeBusiness } from '../setup/actions/setup';

const DAY = '2026-01-20';
const PAGE = 'http://pay.example/corran';

async function bookWithCards(): Promise<BookDb> {
  const db = await newBook();
  const { business } = await loadBook(db);
  const value = { ...business, cards: { page: PAGE, surcharge: '1.5' } };
  await act(db, changeBusiness, { value, before: business }, DAY);
  return db;
}

/** A round of the job with a card company of our own. */
const round = (db: BookDb, company: ReturnType<typeof simulatedCardCompany>) =>
  runJobs(db, [cardJob(async () => company.payments())], () => momentOn(DAY));

const order = (number: string, card: string, amount = '123.00') =>
  ({ number, amount, currency: EUR, card, on: isoDate(DAY) }) as const;

describe('an invoice that may be paid by card', () => {
  test('carries a link of its number and sum, in words and as a code', async () => {
    const db = await bookWithCards();
    const { content, figures } = await issued(db);
    expect(content.payLink).toBe(`${PAGE}?number=INV-2026-0001&amount=123.00&currency=EUR`);
    const page = printed(content, figures, { style: { ...PLAIN_STYLE, payment: 'code' } });
    expect(page.payment.map(([label]) => label)).toContain('Pay by card');
    const noBank = { ...content, seller: { ...content.seller, iban: '' } };
    expect(printed(noBank, figures, { style: { ...PLAIN_STYLE, payment: 'code' } }).code).toEqual({
      text: content.payLink,
      words: 'Pay by card',
    });
  });

  test('carries none where there is no page, nor as a cash sale', async () => {
    expect((await issued(await newBook())).content.payLink).toBeUndefined();
    const sale = await issued(await bookWithCards(), { kind: 'cash-sale', lines: [lineOf({ price: '10.00' })] });
    expect(sale.content.payLink).toBeUndefined();
  });
});

describe('a payment by card', () => {
  test('is a receipt for its invoice, once, however often it is told', async () => {
    const db = await bookWithCards();
    const { id, number } = await issued(db);
    const company = simulatedCardCompany();
    company.pay(order(number, '4000 0000 0000 0001', '150.00'));
    for (let i = 0; i < 3; i++) expect(await round(db, company)).toEqual([]);
    expect((await documentOf(db, id)).open).toBe(0n);
    const receipts = await db.receipts.toArray();
    expect(receipts.map((one) => [one.number, one.amount, one.open, one.parts[0]?.account])).toEqual([
      ['CARD-SIM-20260120-0001', 15_000n, 2700n, '1020'],
    ]);
    await expectSoundBook(db);
  });

  test('that is declined does nothing; that is disputed is taken back', async () => {
    const db = await bookWithCards();
    const { id, number } = await issued(db);
    const company = simulatedCardCompany();
    expect(company.pay(order(number, '4000000000000002'))).toBeNull();
    company.pay(order(number, '4000000000000009'));
    await round(db, company);
    expect((await documentOf(db, id)).open).toBe(12_300n);
    expect((await db.receipts.toArray()).map(({ dishonoured }) => dishonoured?.reason)).toEqual([
      'Disputed by the card holder',
    ]);
    await expectSoundBook(db);
  });

  test('for an invoice nobody knows, or in another currency, is left', async () => {
    const db = await bookWithCards();
    const company = simulatedCardCompany();
    company.pay(order('INV-9999', '4000000000000001'));
    expect(await round(db, company)).toEqual([]);
    expect(await db.receipts.count()).toBe(0);
  });
});

test('the card company answers orders, and nothing else', async () => {
  const status = async (text: string) => {
    const answer = answerCardOrder(text);
    return [answer.status, (await answer.json()).result];
  };
  expect(await status(JSON.stringify(order('INV-1', '4000000000000001')))).toEqual([200, 'paid']);
  expect(await status(JSON.stringify(order('INV-1', '4000000000000002')))).toEqual([200, 'declined']);
  for (const text of ['', '{}', 'x'.repeat(3000), JSON.stringify(order('INV-1', '4000000000000001', '-5'))])
    expect(await status(text)).toEqual([400, undefined]);
  expect((await tellCardPayments().json()).length).toBe(1);
});
