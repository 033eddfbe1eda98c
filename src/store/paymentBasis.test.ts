import fc from 'fast-check';
import { act, day, documentOf, draftOf, issued, lineOf, momentOn, newBook, refusalCodes } from 'tests/book';
import { onePart } from '@/core/decisions/payments/onePart';
import { minor, total } from '@/core/kernel/money';
import { prove } from '@/core/returns/proof';
import type { Registration } from '@/core/tax/registration';
import { archiveBook } from './archive';
import { present } from './load';
import { openArchive } from './openArchive';
import { recordReceipt } from './payments/actions/recordReceipt';
import { perform } from './perform';
import { creditInvoice } from './sales/actions/creditInvoice';
import { keepDraft } from './sales/actions/drafts';
import { issueInvoice } from './sales/actions/issueInvoice';
import { BookDb } from './schema';
import { keepRegistration } from './setup/actions/taxSetup';
import { fileReturn } from './tax/actions/fileReturn';
import { periodReturn } from './tax/queries/periods';
import { proofMaterial } from './tax/queries/proofMaterial';

/* Tax on payment basis: nothing falls due before it is paid, and the last payment releases the rest. */

let db: BookDb;
let registration: Registration;
beforeEach(async () => {
  db = await newBook();
  const value = { ...present(await db.registrations.get('ie-vat'), 'registration'), basis: 'on-payment' as const };
  registration = await act(db, keepRegistration, { value, isNew: false }, '2026-01-01');
});

const pay = (document: { id: string; number: string; customerId: string }, amount: bigint, date: string) =>
  act(
    db,
    recordReceipt,
    onePart({
      customerId: document.customerId,
      date,
      method: 'bank',
      reference: '',
      allocations: [{ documentId: document.id, number: document.number, amount: minor(amount) }],
    }),
    date,
  );

const taxOf = async (start: string) => (await periodReturn(db, await current(), day(start))).figures.tax;
const current = async () => present(await db.registrations.get('ie-vat'), 'registration');
const proofOf = async (start: string) => prove(await proofMaterial(db, await current(), day(start)));
const balanceOf = async (account: string) =>
  total((await db.journalLines.toArray()).filter((line) => line.account === account).map((line) => line.amount));

test('an invoice posts its tax as not yet due and is in no return', async () => {
  const document = await issued(db);
  expect([document.periodId, document.late]).toEqual(['', false]);
  expect([await balanceOf('2200'), await balanceOf('2220')]).toEqual([0n, -2300n]);
  expect(await taxOf('2026-01-01')).toBe(0n);
  expect((await proofOf('2026-01-01')).holds).toBe(true);
});

test('each payment releases its part in the period of its own day, the last one the remainder exactly', async () => {
  const document = await issued(db, { lines: [lineOf({ price: '33.33' })] });
  // 7.67 of tax on 41.00: a third of the money is 2.56, two thirds 5.11, the rest 2.56.
  await pay(document, 1367n, '2026-02-01');
  await pay(document, 1367n, '2026-03-05');
  await pay(document, 1366n, '2026-03-20');
  expect([await taxOf('2026-01-01'), await taxOf('2026-03-01')]).toEqual([256n, 511n]);
  expect([await balanceOf('2200'), await balanceOf('2220')]).toEqual([-767n, 0n]);
  for (const start of ['2026-01-01', '2026-03-01']) {
    const proof = await proofOf(start);
    expect([proof.documents, proof.holds]).toEqual([proof.ledger, true]);
  }
});

test('money for a filed period goes to the next open one', async () => {
  const document = await issued(db);
  await act(db, fileReturn, { registrationId: 'ie-vat', start: '2026-01-01', note: '' }, '2026-03-02');
  await pay(document, 12300n, '2026-02-20');
  expect([await taxOf('2026-01-01'), await taxOf('2026-03-01')]).toEqual([0n, 2300n]);
  expect((await db.taxEntries.toArray()).filter((e) => e.allocationId !== '').map((e) => e.late)).toEqual([true]);
  expect((await proofOf('2026-03-01')).holds).toBe(true);
  await act(db, fileReturn, { registrationId: 'ie-vat', start: '2026-03-01', note: '' }, '2026-05-02');
  expect(await balanceOf('2210')).toBe(-2300n);
});

test('a credit note of an unpaid invoice takes back what was never due', async () => {
  const document = await issued(db);
  await act(db, creditInvoice, { documentId: document.id, date: '2026-02-01', reason: 'Returned' }, '2026-02-01');
  expect([await balanceOf('2200'), await balanceOf('2220')]).toEqual([0n, 0n]);
  expect(await taxOf('2026-01-01')).toBe(0n);
});

test('tax for a filed period is posted on the first open day, the money on its own', async () => {
  const document = await issued(db);
  await act(db, fileReturn, { registrationId: 'ie-vat', start: '2026-01-01', note: '' }, '2026-03-02');
  await pay(document, 12300n, '2026-02-20');
  const lines = (await db.journalLines.toArray()).filter((line) => line.entryId !== document.entryId);
  expect(lines.map((line) => [line.date, line.account, line.amount]).sort()).toEqual([
    ['2026-02-20', '1000', 12300n],
    ['2026-02-20', '1100', -12300n],
    ['2026-03-01', '2200', -2300n],
    ['2026-03-01', '2220', 2300n],
  ]);
});

test('a book with tax that is not due yet opens from its own file', async () => {
  await pay(await issued(db), 5000n, '2026-02-01');
  const file = await archiveBook(db, '2026-03-01T12:00:00.000Z');
  const other = new BookDb('payment-basis-again');
  expect(await openArchive(other, file)).toMatchObject({ ok: true });
  expect(await archiveBook(other, '2026-03-01T12:00:00.000Z')).toEqual(file);
});

test('the account for tax not yet due stays while documents rest on it', async () => {
  await issued(db);
  const { accounts, ...rest } = await current();
  const value = { ...rest, accounts: { ...accounts, notYetDue: '2210' } };
  const result = await perform(db, keepRegistration, { value, isNew: false }, momentOn('2026-01-20'));
  expect(result.ok ? [] : result.refusals.map((r) => [r.code, r.path])).toEqual([['in-use', 'accounts.notYetDue']]);
});

test('the basis stays once documents rest on it', async () => {
  await issued(db);
  const value = { ...(await current()), basis: 'on-issue' as const };
  expect(refusalCodes(await perform(db, keepRegistration, { value, isNew: false }, momentOn('2026-01-20')))).toEqual([
    'in-use',
  ]);
});

test('the proof names a release that is altered, one that is missing and one without its receipt', async () => {
  const document = await issued(db);
  await pay(document, 6150n, '2026-02-01');
  const entry = present(
    (await db.taxEntries.toArray()).find((e) => e.allocationId !== ''),
    'the release',
  );
  await db.taxEntries.put({ ...entry, tax: minor(1n) });
  expect((await proofOf('2026-01-01')).differences.map((d) => d.cause)).toContain('entry-differs');
  await db.taxEntries.delete(entry.id);
  expect((await proofOf('2026-01-01')).differences.map((d) => d.cause)).toContain('document-without-entry');
  await db.taxEntries.put({ ...entry, id: 'stray', allocationId: 'nobody' });
  expect((await proofOf('2026-01-01')).differences.map((d) => d.cause)).toContain('entry-without-document');
});

test('for any invoice and payments what is released never passes the tax, and all of it is released at the end', async () => {
  await fc.assert(
    fc.asyncProperty(
      fc.integer({ min: 1, max: 500_000 }),
      fc.array(fc.integer({ min: 1, max: 99 }), { maxLength: 4 }),
      fc.constantFrom('IE-S', 'IE-R', 'IE-Z'),
      async (cents, percents, taxCode) => {
        const price = `${Math.floor(cents / 100)}.${String(cents % 100).padStart(2, '0')}`;
        const draft = await act(db, keepDraft, draftOf({ lines: [lineOf({ price, taxCode })] }), '2026-01-15');
        const { id } = await act(db, issueInvoice, { draftId: draft.id }, '2026-01-15');
        for (const percent of percents) {
          const { open } = await documentOf(db, id);
          const amount = (open * BigInt(percent)) / 100n;
          if (amount > 0n) await pay(await documentOf(db, id), amount, '2026-02-10');
        }
        const document = await documentOf(db, id);
        if (document.open > 0n) await pay(document, document.open, '2026-02-11');
        const released = (await db.taxEntries.where('documentId').equals(id).toArray()).filter(
          (e) => e.allocationId !== '',
        );
        expect(total(released.map((e) => e.tax))).toBe(document.figures.totals.taxAmount);
        expect(total(released.map((e) => e.base))).toBe(document.figures.totals.net);
      },
    ),
    { numRuns: 25 },
  );
  expect((await proofOf('2026-01-01')).holds).toBe(true);
  expect(registration.basis).toBe('on-payment');
});
