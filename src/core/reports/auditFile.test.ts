import { all, readAudit } from 'tests/auditReader';
import { act, issued, lineOf, newBook } from 'tests/book';
import { isoDate } from '@/core/kernel/date';
import { minor } from '@/core/kernel/money';
import { recordReceipt } from '@/store/payments/actions/recordReceipt';
import { auditFile } from '@/store/reports/auditFile';
import { reportKind } from '@/store/reports/catalogue';
import { creditInvoice } from '@/store/sales/actions/creditInvoice';
import type { BookDb } from '@/store/schema';
import { fileReturn } from '@/store/tax/actions/fileReturn';

const SPAN = { from: isoDate('2026-02-01'), until: isoDate('2026-03-31') };

async function fileOf(db: BookDb, span = SPAN, told: [number, number][] = []): Promise<string> {
  let text = '';
  for await (const piece of auditFile(db, span, isoDate('2026-04-01'), (done, of) => told.push([done, of])))
    text += piece;
  return text;
}

/** 1,000.00 in January, credited by 100.00 and paid by 500.00 in February; 400.00 in March; the first return filed. */
async function bookToAudit(): Promise<BookDb> {
  const db = await newBook();
  const first = await issued(
    db,
    { lines: [lineOf({ description: 'A <gauge> & "probe"', price: '1000' })] },
    '2026-01-15',
  );
  const request = { kind: 'amount', amount: minor(12_300n) } as const;
  await act(db, creditInvoice, { documentId: first.id, date: '2026-02-10', reason: 'late', request }, '2026-02-10');
  const parts = [{ method: 'bank', amount: minor(50_000n) }] as const;
  const to = [{ documentId: first.id, number: first.number, money: minor(50_000n) }];
  const { customerId, content } = first;
  const receipt = { customerId, date: '2026-02-15', reference: 'R', currency: content.currency, parts, to } as const;
  await act(db, recordReceipt, receipt, '2026-02-15');
  await issued(db, { customerId: 'clewbay', lines: [lineOf({ price: '400' })] }, '2026-03-10');
  await act(db, fileReturn, { registrationId: 'ie-vat', start: '2026-01-01', note: '' }, '2026-03-15');
  return db;
}

test('the file is whole by its schema, and its totals are those of the trial balance', async () => {
  const db = await bookToAudit();
  const told: [number, number][] = [];
  const { faults, accounts, totals, root } = readAudit(await fileOf(db, SPAN, told));
  expect(faults).toEqual([]);
  const trial = await reportKind('trial-balance')?.make(db, SPAN);
  for (const { key, cells } of trial?.tables[0]?.rows ?? []) {
    const amounts = cells.slice(1).map((cell) => (typeof cell === 'string' ? 0n : cell.amount));
    const [opening = 0n, moved = 0n, debit = 0n, credit = 0n] = amounts;
    expect([key, accounts.get(key)]).toEqual([key, { opening, moved, closing: debit - credit }]);
  }
  // A credit note of 123.00, a receipt of 500.00, an invoice of 492.00 and the filing of 207.00.
  expect(totals.ledger).toEqual([4, 132_200n, 132_200n]);
  expect(totals.sales).toEqual([2, 49_200n, 12_300n]);
  expect(totals.payments).toEqual([1, 0n, 50_000n]);
  expect(told.at(-1)).toEqual([7, 7]);
  const customers = all(root, 'Customer').map((node) => node.children.map(({ name, text }) => `${name} ${text}`));
  // 1,230.00 was owed; less 123.00 and 500.00.
  expect(customers.find((one) => one.includes('CustomerID ballyvaughan'))).toEqual(
    expect.arrayContaining(['OpeningDebitBalance 1230.00', 'ClosingDebitBalance 607.00']),
  );
});

test('what names hold is escaped, and comes back as it was', async () => {
  const db = await bookToAudit();
  const whole = { from: isoDate('2026-01-01'), until: SPAN.until };
  const { root, faults } = readAudit(await fileOf(db, whole));
  expect(faults).toEqual([]);
  expect(all(root, 'ProductDescription').map(({ text }) => text)).toContain('A <gauge> & "probe"');
});

test('a book without anything gives a file that is whole', async () => {
  const { faults, totals } = readAudit(await fileOf(await newBook()));
  expect([faults, totals.ledger]).toEqual([[], [0, 0n, 0n]]);
});
