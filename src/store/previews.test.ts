import fc from 'fast-check';
import { act, discountOf, documentOf, draftOf, lineOf, momentOn, newBook, refusalCodes, wholeBook } from 'tests/book';
import { onePart } from '@/core/decisions/payments/onePart';
import { draftSides } from '@/core/decisions/sales/draftSides';
import { preview as figuresNow } from '@/core/documents/preview';
import { registrationFor } from '@/core/documents/setting';
import { decimal } from '@/core/kernel/decimal';
import { minor } from '@/core/kernel/money';
import { loadSetting, present } from './load';
import { recordReceipt } from './payments/actions/recordReceipt';
import { perform, preview } from './perform';
import { keepDraft } from './sales/actions/drafts';
import { issueInvoice } from './sales/actions/issueInvoice';
import type { BookDb } from './schema';
import { keepExchangeRate, keepRegistration } from './setup/actions/taxSetup';

/* What margins show before anything is posted is what is posted. */

const DAY = '2026-01-15';

interface Posted {
  readonly account: string;
  readonly amount: bigint;
  readonly taxCode?: string;
}

/** Sides in one order, without those that move nothing, as the margin leaves them out. */
const plainly = (sides: readonly Posted[]) =>
  sides
    .filter(({ amount }) => amount !== 0n)
    .map(({ account, amount, taxCode = '' }) => `${account} ${taxCode} ${amount}`)
    .sort();

const linesOf = async (db: BookDb) => plainly(await db.journalLines.toArray());

async function bookOn(basis: 'on-issue' | 'on-payment'): Promise<BookDb> {
  const db = await newBook();
  const value = { ...present(await db.registrations.get('ie-vat'), 'registration'), basis };
  await act(db, keepRegistration, { value, isNew: false }, '2026-01-01');
  const rate = {
    id: 'usd',
    currency: 'USD' as never,
    date: '2026-01-02' as never,
    perHome: decimal('1.0850'),
    source: '',
  };
  await act(db, keepExchangeRate, { value: rate, isNew: true }, '2026-01-02');
  return db;
}

const price = fc.integer({ min: 1, max: 500_000 }).map((n) => (n / 100).toFixed(2));
const quantity = fc.integer({ min: 1, max: 999 }).map((n) => (n / 10).toFixed(1));
const taxCode = fc.constantFrom('IE-S', 'IE-R', 'IE-Z');
const drafts = fc.record({
  kind: fc.constantFrom('invoice' as const, 'cash-sale' as const),
  priceMode: fc.constantFrom('net' as const, 'gross' as const),
  currency: fc.constantFrom('', 'USD'),
  adjustments: fc.constantFrom([], [discountOf('7.5%')]),
  paidBy: fc.constantFrom('cash' as const, 'card' as const, 'bank' as const),
  lines: fc.array(
    fc.record({ price, quantity, taxCode, account: fc.constantFrom('4000', '4100') }).map((line) => lineOf(line)),
    { minLength: 1, maxLength: 4 },
  ),
});

test('the entries beside a draft are those that issuing it posts, its cash receipt and released tax too', async () => {
  await fc.assert(
    fc.asyncProperty(drafts, fc.constantFrom('on-issue' as const, 'on-payment' as const), async (over, basis) => {
      const db = await bookOn(basis);
      const draft = await act(db, keepDraft, draftOf({ ...over, issueDate: DAY }), DAY);
      const kept = present(await db.drafts.get(draft.id), 'the draft');
      const customer = present(await db.customers.get(kept.customerId), 'the customer');
      const setting = await loadSetting(db, kept, customer);
      const registration = registrationFor(setting, kept.registrationId);
      const accounts = await db.accounts.toArray();
      const shown = draftSides(kept, figuresNow(kept, customer, setting), registration, accounts);
      await act(db, issueInvoice, { draftId: kept.id }, DAY);
      expect(await linesOf(db)).toEqual(plainly(shown));
      await db.delete();
    }),
    { numRuns: 30 },
  );
});

test.each([
  ['on issue, in home currency', 'on-issue', ''],
  ['on payment, with the tax it releases', 'on-payment', ''],
  ['in dollars, with what the rate makes', 'on-payment', 'USD'],
] as const)('the entries beside a receipt are those that recording it posts: %s', async (_, basis, currency) => {
  const db = await bookOn(basis);
  const draft = await act(db, keepDraft, draftOf({ issueDate: DAY, currency }), DAY);
  const { id } = await act(db, issueInvoice, { draftId: draft.id }, DAY);
  const document = await documentOf(db, id);
  const issuedLines = await linesOf(db);
  const input = {
    customerId: document.customerId,
    date: '2026-02-10',
    method: 'bank' as const,
    reference: '',
    allocations: [{ documentId: id, number: document.number, amount: minor(5000n) }],
    perHome: currency === '' ? '' : '1.1000',
  };
  const before = await wholeBook(db);
  const planned = await preview(db, recordReceipt, onePart(input), momentOn('2026-02-10'));
  expect(await wholeBook(db)).toEqual(before);
  if (!planned.ok) throw new Error(JSON.stringify(planned.refusals));
  await act(db, recordReceipt, onePart(input), '2026-02-10');
  const posted = [...issuedLines, ...plainly(planned.value.add?.journalLines ?? [])].sort();
  expect(await linesOf(db)).toEqual(posted);
});

test('what an action refuses is refused beforehand, in the same words', async () => {
  const db = await bookOn('on-issue');
  const input = { customerId: '', date: '', method: 'bank' as const, reference: '', allocations: [] };
  const planned = await preview(db, recordReceipt, onePart(input), momentOn(DAY));
  expect(refusalCodes(planned)).toEqual(refusalCodes(await perform(db, recordReceipt, onePart(input), momentOn(DAY))));
  expect(refusalCodes(planned)).toContain('missing');
});
