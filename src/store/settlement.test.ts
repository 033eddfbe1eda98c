import { act, day, documentOf, issued, lineOf, momentOn, newBook, refusalCodes } from 'tests/book';
import { onePart } from '@/core/decisions/payments/onePart';
import type { IssuedDocument } from '@/core/documents/issued';
import { type Minor, minor, total } from '@/core/kernel/money';
import { prove } from '@/core/returns/proof';
import { archiveBook } from './archive';
import { present } from './load';
import { openArchive } from './openArchive';
import { allocateCredit, undoAllocation } from './payments/actions/allocate';
import { recordReceipt } from './payments/actions/recordReceipt';
import { refundCredit } from './payments/actions/refund';
import { receiptFile } from './payments/queries/receiptFile';
import { perform } from './perform';
import { cancelDocument } from './sales/actions/afterIssue';
import { creditInvoice } from './sales/actions/creditInvoice';
import { BookDb } from './schema';
import { mergeDouble } from './setup/actions/customers';
import { keepExchangeRate, keepRegistration } from './setup/actions/taxSetup';
import { proofMaterial } from './tax/queries/proofMaterial';

/* Credits and debts: money on account, allocations as records of their own, and what undoing one restores. */

let db: BookDb;
beforeEach(async () => {
  db = await newBook();
});

const CUSTOMER = 'ballyvaughan';

const receive = (sum: bigint, date: string, of: readonly [IssuedDocument, bigint][] = [], over: object = {}) =>
  act(
    db,
    recordReceipt,
    onePart({
      customerId: CUSTOMER,
      date,
      method: 'bank',
      reference: '',
      sum: minor(sum),
      allocations: of.map(([{ id, number }, amount]) => ({ documentId: id, number, amount: minor(amount) })),
      ...over,
    }),
    date,
  );
const allocate = (creditId: string, debt: { id: string }, amount: bigint, date: string) =>
  act(db, allocateCredit, { creditId, debtId: debt.id, amount: minor(amount), date }, date);
const undo = (creditId: string, debt: { id: string }, date: string) =>
  act(db, undoAllocation, { creditId, debtId: debt.id, date }, date);
const balance = async (account: string): Promise<Minor> =>
  total((await db.journalLines.toArray()).filter((line) => line.account === account).map((line) => line.amount));
const receiptOf = async (id: string) => present(await db.receipts.get(id), 'the receipt');
const invoice = (price: string, over: object = {}) => issued(db, { lines: [lineOf({ price })], ...over });

async function onPaymentBasis() {
  const registration = present(await db.registrations.get('ie-vat'), 'registration');
  await act(db, keepRegistration, { value: { ...registration, basis: 'on-payment' }, isNew: false }, '2026-01-01');
}

async function expectProven(starts: readonly string[]) {
  const registration = present(await db.registrations.get('ie-vat'), 'registration');
  for (const start of starts)
    expect(prove(await proofMaterial(db, registration, day(start)))).toMatchObject({ holds: true });
}

/** Opens from its own file, with the same open amounts. */
async function expectWhole() {
  const other = new BookDb(`settlement-${Math.random()}`);
  expect(await openArchive(other, await archiveBook(db, '2026-12-31T12:00:00.000Z'))).toMatchObject({ ok: true });
}

test('money on account stands to the customer’s credit, and is allocated later', async () => {
  const { id } = await receive(20000n, '2026-01-05');
  expect(await receiptOf(id)).toMatchObject({ open: 20000n, openHome: 20000n, isOpen: 1 });
  expect([await balance('1000'), await balance('1100')]).toEqual([20000n, -20000n]);
  expect((await db.customerBalances.get(CUSTOMER))?.open).toBe(-20000n);
  const due = await invoice('100.00');
  await allocate(id, due, 12300n, '2026-01-15');
  // 200.00 less 123.00 stays on account.
  expect(await receiptOf(id)).toMatchObject({ open: 7700n, openHome: 7700n, isOpen: 1 });
  expect(await documentOf(db, due.id)).toMatchObject({ open: 0n, received: 12300n, state: 'paid' });
  expect([await balance('1100'), (await db.customerBalances.get(CUSTOMER))?.open]).toEqual([-7700n, -7700n]);
  await expectWhole();
});

test('an allocation is undone and moved; both records stay', async () => {
  const [first, second] = [await invoice('100.00'), await invoice('80.00')];
  const { id } = await receive(12300n, '2026-02-02', [[first, 12300n]]);
  await undo(id, first, '2026-02-05');
  expect(await documentOf(db, first.id)).toMatchObject({
    open: 12300n,
    openHome: 12300n,
    received: 0n,
    state: 'issued',
  });
  await allocate(id, second, 9840n, '2026-02-05');
  expect(await documentOf(db, second.id)).toMatchObject({ open: 0n, state: 'paid' });
  expect(await receiptOf(id)).toMatchObject({ open: 2460n, openHome: 2460n });
  expect([await balance('1000'), await balance('1100')]).toEqual([12300n, 9840n]);
  const file = await receiptFile(db, id);
  expect(file?.lines.map(({ amount }) => amount)).toEqual(expect.arrayContaining([12300n, -12300n]));
  expect(file?.allocations.map(({ debtNumber, amount, undoneOn }) => [debtNumber, amount, undoneOn])).toEqual([
    [first.number, 12300n, '2026-02-05'],
    [second.number, 9840n, ''],
  ]);
  await expectWhole();
});

test('foreign money: each allocation posts its difference, and the last part takes what is left', async () => {
  for (const [perHome, date] of [
    ['1.0850', '2026-01-01'],
    ['1.1230', '2026-02-01'],
  ] as const)
    await act(
      db,
      keepExchangeRate,
      { value: { id: `USD|${date}`, currency: 'USD', date, perHome, source: 'bank' } as never, isNew: true },
      date,
    );
  const over = { currency: 'USD', lines: [lineOf({ price: '10.00', taxCode: 'IE-Z', taxByHand: true })] };
  const [first, second] = [await issued(db, over), await issued(db, over)];
  // 10.00 USD at 1 ÷ 1.0850 are 9.22; 16.66 USD at 1 ÷ 1.1230 are 14.84.
  expect([first.openHome, second.openHome]).toEqual([922n, 922n]);
  const { id } = await receive(1666n, '2026-02-20', [], { currency: 'USD' });
  expect(await receiptOf(id)).toMatchObject({ open: 1666n, openHome: 1484n });
  for (const part of [333n, 333n, 334n]) await allocate(id, first, part, '2026-02-21');
  for (const part of [333n, 333n]) await allocate(id, second, part, '2026-02-21');
  expect(await documentOf(db, first.id)).toMatchObject({ open: 0n, openHome: 0n });
  expect(await documentOf(db, second.id)).toMatchObject({ open: 334n, openHome: 308n, state: 'part-paid' });
  expect(await receiptOf(id)).toMatchObject({ open: 0n, openHome: 0n, isOpen: 0 });
  expect([await balance('1000'), await balance('1100'), await balance('7920')]).toEqual([1484n, 308n, 52n]);
  // Undone in any order, what was posted is taken back and all stands as it did.
  for (const debt of [first, second, first, second, first]) await undo(id, debt, '2026-02-22');
  expect(await receiptOf(id)).toMatchObject({ open: 1666n, openHome: 1484n, isOpen: 1 });
  expect([(await documentOf(db, first.id)).openHome, (await documentOf(db, second.id)).openHome]).toEqual([922n, 922n]);
  expect([await balance('1100'), await balance('7920')]).toEqual([360n, 0n]);
  await expectWhole();
});

test('on payment basis undoing takes the released tax back in the period of its own day', async () => {
  await onPaymentBasis();
  const due = await invoice('100.05');
  // 100.05 at 23 % is 123.06; of 23.01 of tax 60.00 releases 11.22, the rest 11.79.
  await receive(6000n, '2026-02-02', [[due, 6000n]]);
  const { id } = await receive(6306n, '2026-03-04', [[due, 6306n]]);
  await undo(id, due, '2026-05-06');
  expect([await balance('2200'), await balance('2220')]).toEqual([-1122n, -1179n]);
  const entries = (await db.taxEntries.toArray()).filter((entry) => entry.allocationId !== '');
  expect(entries.map(({ periodId, tax, base }) => [periodId.split('|')[1], tax, base])).toEqual(
    expect.arrayContaining([
      ['2026-01-01', 1122n, 4878n],
      ['2026-03-01', 1179n, 5127n],
      ['2026-05-01', -1179n, -5127n],
    ]),
  );
  await expectProven(['2026-01-01', '2026-03-01', '2026-05-01']);
  await expectWhole();
});

test('a credit note on a paid invoice is used for another, and that is undone', async () => {
  const [paid, other] = [await invoice('100.00'), await invoice('50.00')];
  await receive(12300n, '2026-01-20', [[paid, 12300n]]);
  const note = await act(
    db,
    creditInvoice,
    { documentId: paid.id, date: '2026-01-21', reason: 'Returned' },
    '2026-01-21',
  );
  expect(await documentOf(db, note.id)).toMatchObject({ open: -12300n });
  await allocate(note.id, other, 6150n, '2026-01-22');
  expect(await documentOf(db, other.id)).toMatchObject({ open: 0n, state: 'paid' });
  expect(await documentOf(db, note.id)).toMatchObject({ open: -6150n, received: -6150n });
  await expectWhole();
  await undo(note.id, other, '2026-01-23');
  expect([(await documentOf(db, note.id)).open, (await documentOf(db, other.id)).open]).toEqual([-12300n, 6150n]);
  await expectWhole();
});

test('on payment basis a credit note that pays for another invoice releases its own tax with it, and back again', async () => {
  await onPaymentBasis();
  const [paid, other] = [await invoice('100.00'), await invoice('50.00')];
  await receive(12300n, '2026-01-20', [[paid, 12300n]]);
  // 23.00 is due by the money; the note's 23.00 and the other's 11.50 are not yet.
  const note = await act(
    db,
    creditInvoice,
    { documentId: paid.id, date: '2026-01-21', reason: 'Returned' },
    '2026-01-21',
  );
  expect([await balance('2200'), await balance('2220')]).toEqual([-2300n, 1150n]);
  // Half of the note pays for the other: 11.50 of each falls due, and they cancel each other out.
  await allocate(note.id, other, 6150n, '2026-03-02');
  expect([await balance('2200'), await balance('2220')]).toEqual([-2300n, 1150n]);
  const march = (await db.taxEntries.toArray()).filter(({ periodId }) => periodId.endsWith('2026-03-01'));
  expect(march.map(({ documentNumber, tax }) => [documentNumber, tax])).toEqual(
    expect.arrayContaining([
      [other.number, 1150n],
      [note.number, -1150n],
    ]),
  );
  await undo(note.id, other, '2026-03-03');
  expect(
    total((await db.taxEntries.toArray()).filter((e) => e.periodId.endsWith('2026-03-01')).map((e) => e.tax)),
  ).toBe(0n);
  await expectProven(['2026-01-01', '2026-03-01']);
  await expectWhole();
});

test('on payment basis own credit notes, before and after payment, leave nothing in tax not yet due for what is settled', async () => {
  await onPaymentBasis();
  const credit = (of: IssuedDocument, amount: bigint, date: string) =>
    act(
      db,
      creditInvoice,
      { documentId: of.id, date, reason: 'Part back', request: { kind: 'amount', amount: minor(amount) } },
      date,
    );
  const [first, second] = [await invoice('100.00'), await invoice('100.00')];
  // 123.00 less 30.75 is 92.25, which pays all: 23.00 less the 5.75 of the note fall due, 17.25.
  const before = await credit(first, 3075n, '2026-01-20');
  await receive(9225n, '2026-02-02', [[first, 9225n]]);
  expect([await balance('2200'), await balance('2220')]).toEqual([-1725n, -2300n]);
  expect([(await documentOf(db, first.id)).open, (await documentOf(db, before.id)).open]).toEqual([0n, 0n]);
  // Paid whole, then credited: the note stays open with its 5.75.
  await receive(12300n, '2026-02-10', [[second, 12300n]]);
  const after = await credit(second, 3075n, '2026-03-02');
  expect(await documentOf(db, after.id)).toMatchObject({ open: -3075n });
  expect([await balance('2200'), await balance('2220')]).toEqual([-4025n, 575n]);
  // Used for a third: 5.75 of each falls due, and nothing is left of the note.
  const third = await invoice('25.00');
  await allocate(after.id, third, 3075n, '2026-03-03');
  expect([await balance('2200'), await balance('2220')]).toEqual([-4025n, 0n]);
  await expectProven(['2026-01-01', '2026-03-01']);
  await expectWhole();
});

test('a merged customer takes money on account and allocations along', async () => {
  const due = await invoice('100.00');
  const { id } = await receive(20000n, '2026-01-20', [[due, 12300n]]);
  await act(db, mergeDouble, { keepId: 'clewbay', doubleId: CUSTOMER }, '2026-01-21');
  expect([(await receiptOf(id)).customerId, (await db.allocations.toArray()).map((one) => one.customerId)]).toEqual([
    'clewbay',
    ['clewbay'],
  ]);
  // Undoing, and crediting, still find both sides together.
  await undo(id, due, '2026-01-22');
  await act(db, creditInvoice, { documentId: due.id, date: '2026-01-23', reason: 'Returned' }, '2026-01-23');
  expect(await documentOf(db, due.id)).toMatchObject({ open: 0n, state: 'credited' });
  await expectWhole();
});

const refund = (creditId: string, amount: bigint, date: string, over: object = {}) =>
  act(db, refundCredit, { creditId, amount: minor(amount), date, method: 'bank', reference: '', ...over }, date);

test('money on account and a credit note are given back', async () => {
  const { id } = await receive(20000n, '2026-01-05');
  const given = await refund(id, 7500n, '2026-01-06', { method: 'cash' });
  expect(given).toMatchObject({ number: 'REF-2026-0001', amount: 7500n, amountHome: 7500n });
  expect(await receiptOf(id)).toMatchObject({ open: 12500n, openHome: 12500n });
  expect([await balance('1000'), await balance('1010'), await balance('1100')]).toEqual([20000n, -7500n, -12500n]);
  const paid = await invoice('100.00');
  await receive(12300n, '2026-01-20', [[paid, 12300n]]);
  const note = await act(
    db,
    creditInvoice,
    { documentId: paid.id, date: '2026-01-21', reason: 'Returned' },
    '2026-01-21',
  );
  await refund(note.id, 12300n, '2026-01-22');
  expect(await documentOf(db, note.id)).toMatchObject({ open: 0n, isOpen: 0 });
  expect([await balance('1100'), (await db.customerBalances.get(CUSTOMER))?.open]).toEqual([-12500n, -12500n]);
  const more = { creditId: id, amount: minor(12501n), date: '2026-01-23', method: 'bank' as const, reference: '' };
  expect(refusalCodes(await perform(db, refundCredit, more, momentOn('2026-01-23')))).toEqual(['over-allocated']);
  await expectWhole();
});

test('foreign money is given back at the rate of the day; what it stood at differs by exchange', async () => {
  const over = { currency: 'USD', perHome: '1.25' };
  // 100.00 USD came at 80.00; 40.00 of them go at 1 ÷ 1.60, 25.00, and stood at 32.00: 7.00 is gained.
  const { id } = await receive(10000n, '2026-01-05', [], over);
  await refund(id, 4000n, '2026-01-06', { perHome: '1.60' });
  expect(await receiptOf(id)).toMatchObject({ open: 6000n, openHome: 4800n });
  expect([await balance('1000'), await balance('1100'), await balance('7920')]).toEqual([5500n, -4800n, -700n]);
  await expectWhole();
});

test('on payment basis a credit note that is given back releases its own tax in the period of the day', async () => {
  await onPaymentBasis();
  const paid = await invoice('100.00');
  await receive(12300n, '2026-02-10', [[paid, 12300n]]);
  const credit = { kind: 'amount' as const, amount: minor(3075n) };
  const input = { documentId: paid.id, date: '2026-03-02', reason: 'Part back', request: credit };
  const note = await act(db, creditInvoice, input, '2026-03-02');
  await refund(note.id, 3075n, '2026-05-05');
  // 23.00 in January and February, 5.75 taken back in May; nothing is left not yet due.
  expect([await balance('2200'), await balance('2220')]).toEqual([-1725n, 0n]);
  await expectProven(['2026-01-01', '2026-03-01', '2026-05-01']);
  await expectWhole();
});

test('an invoice that a credit note takes back is not cancelled beside it, also once the note is free again', async () => {
  const due = await invoice('100.00');
  const note = await act(
    db,
    creditInvoice,
    { documentId: due.id, date: '2026-01-21', reason: 'Returned' },
    '2026-01-21',
  );
  await undo(note.id, due, '2026-01-22');
  const input = { documentId: due.id, reason: 'Typed twice' };
  expect(refusalCodes(await perform(db, cancelDocument, input, momentOn('2026-01-23')))).toEqual(['settled']);
});

test('on payment basis an invoice is cancelled after its money was moved away: what was released and taken back stays', async () => {
  await onPaymentBasis();
  const due = await invoice('100.00');
  const { id } = await receive(12300n, '2026-02-20', [[due, 12300n]]);
  await undo(id, due, '2026-03-02');
  await act(db, cancelDocument, { documentId: due.id, reason: 'Typed twice' }, '2026-03-03');
  expect([await balance('2200'), await balance('2220')]).toEqual([0n, 0n]);
  await expectProven(['2026-01-01', '2026-03-01']);
  await expectWhole();
});

describe('refused, and nothing changed:', () => {
  test.each<readonly [string, (due: IssuedDocument, id: string) => Promise<unknown>, string]>([
    ['more than is open', (due, id) => tryAllocate(id, due.id, 12301n), 'over-allocated'],
    ['more than is on account', (_, id) => tryAllocate(id, 'dear', 20001n), 'over-allocated'],
    ['nothing', (due, id) => tryAllocate(id, due.id, 0n), 'invalid'],
    ['a debt that is not there', (_, id) => tryAllocate(id, 'nowhere', 100n), 'not-found'],
    ['a credit that is not there', (due) => tryAllocate('nowhere', due.id, 100n), 'not-found'],
    ['an invoice as a credit', (due) => tryAllocate(due.id, due.id, 100n), 'not-found'],
    ['no day', (due, id) => tryAllocate(id, due.id, 100n, 'soon'), 'invalid'],
    ['undoing what was not made', (due, id) => tryUndo(id, due.id, '2026-02-01'), 'not-found'],
    ['a sum below what it settles', (due) => tryReceive(100n, due), 'over-allocated'],
  ])('%s', async (_, attempt, code) => {
    const due = await invoice('100.00');
    const dear = await invoice('1000.00');
    aliases.set('dear', dear.id);
    const { id } = await receive(20000n, '2026-01-05');
    const before = await archiveBook(db, '2026-12-31T12:00:00.000Z');
    expect(refusalCodes((await attempt(due, id)) as never)).toContain(code);
    expect(await archiveBook(db, '2026-12-31T12:00:00.000Z')).toEqual(before);
  });

  const aliases = new Map<string, string>();
  const at = momentOn('2026-02-01');
  const tryAllocate = (creditId: string, debtId: string, amount: bigint, date = '2026-02-01') =>
    perform(db, allocateCredit, { creditId, debtId: aliases.get(debtId) ?? debtId, amount: minor(amount), date }, at);
  const tryUndo = (creditId: string, debtId: string, date: string) =>
    perform(db, undoAllocation, { creditId, debtId, date }, at);
  const tryReceive = (sum: bigint, { id, number }: IssuedDocument) =>
    perform(
      db,
      recordReceipt,
      onePart({
        customerId: CUSTOMER,
        date: '2026-02-01',
        method: 'bank',
        reference: '',
        sum: minor(sum),
        allocations: [{ documentId: id, number, amount: minor(12300n) }],
      }),
      at,
    );
});

test('undoing is not dated before what it undoes', async () => {
  const due = await invoice('100.00');
  const { id } = await receive(12300n, '2026-02-02', [[due, 12300n]]);
  const input = { creditId: id, debtId: due.id, date: '2026-02-01' };
  expect(refusalCodes(await perform(db, undoAllocation, input, momentOn('2026-02-03')))).toEqual(['invalid']);
});
