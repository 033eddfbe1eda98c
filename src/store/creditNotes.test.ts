import { act, discountOf, documentOf, draftOf, issued, lineOf, newBook } from 'tests/book';
import type { CreditRequest } from '@/core/documents/creditContent';
import { decimal } from '@/core/kernel/decimal';
import { minor, total } from '@/core/kernel/money';
import { present } from './load';
import { creditInvoice } from './sales/actions/creditInvoice';
import { keepDraft } from './sales/actions/drafts';
import { issueInvoice } from './sales/actions/issueInvoice';
import { beginStage, sendQuoteDraft } from './sales/actions/quotes';
import type { BookDb } from './schema';
import { changeCustomer } from './setup/actions/setup';
import { keepRegistration, keepWithholdingType } from './setup/actions/taxSetup';

const DAY = '2026-01-15';

let db: BookDb;
beforeEach(async () => {
  db = await newBook();
});

const credit = async (documentId: string, request?: CreditRequest) =>
  documentOf(
    db,
    (await act(db, creditInvoice, { documentId, date: DAY, reason: 'Returned', ...(request && { request }) }, DAY)).id,
  );

const balanceOf = async (account: string) =>
  total((await db.journalLines.toArray()).filter((line) => line.account === account).map((line) => line.amount));

const amount = (cents: bigint): CreditRequest => ({ kind: 'amount', amount: minor(cents) });

test('an amount goes back over the income accounts that the invoice used, its discount too', async () => {
  const lines = [lineOf({ price: '100', account: '4000' }), lineOf({ price: '300', account: '4100' })];
  const invoice = await issued(db, { lines, adjustments: [discountOf('10%')] });
  // Net 400 less 40 = 360, tax 82.80, in all 442.80; half of it is 221.40: net 180 = 50 + 150 − 20.
  await credit(invoice.id, amount(22140n));
  expect([await balanceOf('4000'), await balanceOf('4100'), await balanceOf('4900')]).toEqual([-5000n, -15000n, 2000n]);
  await credit(invoice.id);
  expect([await balanceOf('4000'), await balanceOf('4100'), await balanceOf('4900')]).toEqual([0n, 0n, 0n]);
});

describe('with tax withheld at issue', () => {
  const withhold = async (threshold: string) => {
    const value = {
      id: 'WH',
      name: 'Withheld',
      base: 'net',
      rates: [{ from: '2020-01-01', percent: decimal('3') }],
      currency: 'EUR',
      thresholdDocument: decimal(threshold),
      thresholdYear: decimal('0'),
      when: 'on-issue',
      certificate: true,
      source: '',
    } as never;
    await act(db, keepWithholdingType, { value, isNew: true }, DAY);
    const customer = present(await db.customers.get('ballyvaughan'), 'the customer');
    await act(db, changeCustomer, { ...customer, withholding: ['WH'] }, DAY);
  };

  test('nothing comes back of what was never withheld', async () => {
    await withhold('1000');
    const invoice = await issued(db);
    const note = await credit(invoice.id, amount(6150n));
    expect(note.content.withholding).toBeUndefined();
    expect(await documentOf(db, invoice.id)).toMatchObject({ open: 6150n });
  });

  test('parts that round leave nothing open', async () => {
    await withhold('0');
    // 3 % of 33.33 is 1.00; of thirds of it 0.33 three times.
    const invoice = await issued(db, { lines: [lineOf({ quantity: '3', price: '11.11' })] });
    expect(invoice.figures.totals.withheld).toBe(100n);
    const [id = ''] = invoice.content.lines.map((line) => line.id);
    const notes = [];
    for (let i = 0; i < 3; i++)
      notes.push(await credit(invoice.id, { kind: 'lines', quantities: new Map([[id, decimal('1')]]) }));
    expect(notes.map((note) => note.figures.totals.withheld)).toEqual([33n, 34n, 33n]);
    expect(await documentOf(db, invoice.id)).toMatchObject({ open: 0n, openHome: 0n, state: 'credited' });
    expect([await balanceOf('1100'), await balanceOf('1300')]).toEqual([0n, 0n]);
  });
});

describe('rounding to the smallest coin', () => {
  beforeEach(async () => {
    const registration = present(await db.registrations.get('ie-vat'), 'the registration');
    const rounding = { ...registration.rounding, cashStep: '0.05' };
    await act(db, keepRegistration, { value: { ...registration, rounding }, isNew: false }, DAY);
  });

  // At the counter prices include tax: 12.31 is 12.30 in coins of five.
  const lines = [lineOf({ price: '12.31' })];

  test('is for what is paid in coins only', async () => {
    expect((await issued(db, { lines, priceMode: 'gross' })).figures.totals.payable).toBe(1231n);
    expect((await issued(db, { lines, kind: 'cash-sale', paidBy: 'card' })).figures.totals.payable).toBe(1231n);
    expect((await issued(db, { lines, kind: 'cash-sale', paidBy: 'cash' })).figures.totals.payable).toBe(1230n);
  });

  test('comes back with the credit notes, so that they settle what was rounded', async () => {
    const sale = await issued(db, { kind: 'cash-sale', paidBy: 'cash', lines });
    const first = await credit(sale.id, amount(600n));
    const last = await credit(sale.id);
    expect([first, last].map((note) => note.figures.totals.rounding)).toEqual([0n, -1n]);
    expect(total([first, last].map((note) => note.figures.totals.payable))).toBe(1230n);
    expect(await balanceOf('7910')).toBe(0n);
  });
});

test('what a sum takes back can be billed of the quote again', async () => {
  const draft = await act(
    db,
    keepDraft,
    draftOf({ kind: 'quote', due: '1m', lines: [lineOf({ price: '300' }), lineOf({ price: '100' })] }),
    DAY,
  );
  const quote = await act(db, sendQuoteDraft, { draftId: draft.id }, DAY);
  const { draftId } = await act(
    db,
    beginStage,
    { documentId: quote.id, request: { kind: 'rest' }, issueDate: DAY },
    DAY,
  );
  const invoice = await act(db, issueInvoice, { draftId }, DAY);
  expect(await documentOf(db, quote.id)).toMatchObject({ state: 'invoiced', quote: { billed: 40000n } });
  // 123.00 with 23 % inside is 100.00 of 400.00.
  await credit(invoice.id, amount(12300n));
  expect(await documentOf(db, quote.id)).toMatchObject({ state: 'part-invoiced', quote: { billed: 30000n } });
  await credit(invoice.id);
  expect(await documentOf(db, quote.id)).toMatchObject({ quote: { billed: 0n } });
});
