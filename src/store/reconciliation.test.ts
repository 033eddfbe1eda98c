import { act, day, issued, lineOf, newBook } from 'tests/book';
import { minor } from '@/core/kernel/money';
import { prove } from '@/core/returns/proof';
import { writeJournal as journal } from './ledger/actions/writeJournal';
import { present } from './load';
import type { BookDb } from './schema';
import { keepRegistration } from './setup/actions/taxSetup';
import { fileReturn } from './tax/actions/fileReturn';
import { ribbon } from './tax/queries/periods';
import { proofMaterial } from './tax/queries/proofMaterial';

/* The tax account from its opening to its closing balance, by posting date. */

let db: BookDb;
beforeEach(async () => {
  db = await newBook();
});

const registration = async () => present(await db.registrations.get('ie-vat'), 'the registration');
const proofOf = async (start: string) => prove(await proofMaterial(db, await registration(), day(start)));
const stepsOf = async (start: string) => {
  const { opening, steps, closing } = (await proofOf(start)).account;
  return [opening, ...steps.map(({ kind, amount }) => `${kind} ${amount}`), closing];
};
const journalOf = (date: string, account: string, amount: bigint, against = '7900') =>
  act(
    db,
    journal,
    {
      date,
      text: `By hand ${date}`,
      sides: [
        { account, amount: minor(amount) },
        { account: against, amount: minor(-amount) },
      ],
    },
    date,
  );

test('a document posted on another day than its tax point stands between the return and the account', async () => {
  await issued(db, { issueDate: '2026-01-15' });
  // 300.00 and 69.00 of tax, of February, posted in March.
  const later = await issued(db, {
    issueDate: '2026-03-05',
    taxPoint: '2026-02-20',
    lines: [lineOf({ price: '300' })],
  });
  expect(await stepsOf('2026-01-01')).toEqual([0n, 'reported 9200', 'posted-outside -6900', 2300n]);
  expect(await stepsOf('2026-03-01')).toEqual([2300n, 'reported 0', 'other-period 6900', 9200n]);
  const [item] = (await proofOf('2026-01-01')).account.steps.find((s) => s.kind === 'posted-outside')?.items ?? [];
  expect(item).toMatchObject({ entryId: later.entryId, date: '2026-03-05', amount: -6900n });
  // All of it is timing: both periods hold.
  expect((await proofOf('2026-01-01')).holds && (await proofOf('2026-03-01')).holds).toBe(true);
});

test('filing settles what was reported, on the last day of its period', async () => {
  await issued(db);
  await act(db, fileReturn, { registrationId: 'ie-vat', start: '2026-01-01', note: '' }, '2026-03-02');
  await issued(db, { issueDate: '2026-03-10', taxPoint: '2026-02-10' });
  expect(await stepsOf('2026-01-01')).toEqual([0n, 'reported 2300', 'settlement -2300', 0n]);
  expect(await stepsOf('2026-03-01')).toEqual([0n, 'reported 2300', 2300n]);
});

test('a manual journal is named in each period until it is cleared, those before the first period too', async () => {
  await journalOf('2025-12-20', '2200', -500n);
  await issued(db);
  const causes = async (start: string) => (await proofOf(start)).differences.map((d) => `${d.cause} ${d.amount}`);
  expect(await causes('2026-01-01')).toEqual(['manual-journal 500']);
  const input = { registrationId: 'ie-vat', start: '2026-01-01', note: 'Carried from the old books' };
  await act(db, fileReturn, input, '2026-03-02');
  expect(await causes('2026-03-01')).toEqual(['manual-journal 500']);
  expect((await ribbon(db, await registration(), day('2026-04-01'), 9)).map((cell) => cell.state)).toEqual([
    'filed',
    'differing',
  ]);
  await journalOf('2026-03-15', '2200', 500n);
  expect(await causes('2026-03-01')).toEqual([]);
  expect(await stepsOf('2026-03-01')).toEqual([500n, 'reported 0', 'manual -500', 0n]);
});

test('a manual journal on receivables or the bank is told, and the tax is the same', async () => {
  await issued(db);
  await journalOf('2026-02-01', '1100', 10_000n, '1000');
  const proof = await proofOf('2026-01-01');
  expect(proof.touching.map(({ account, amount }) => [account, amount])).toEqual([
    ['1100', 10_000n],
    ['1000', -10_000n],
  ]);
  expect(proof.holds).toBe(true);
});

test('a tax that was typed is told with what it differs by', async () => {
  await issued(db, { overrides: [{ tax: 'IE-S', family: 'IE-VAT', amount: '23.02', reason: 'as the till has it' }] });
  const { overridden, holds } = await proofOf('2026-01-01');
  expect([overridden.map(({ amount }) => amount), holds]).toEqual([[2n], true]);
});

test('an account that moved by more than its lines explain is a difference', async () => {
  await issued(db);
  await db.accountMonths.put({ account: '2200', month: '2026-01' as never, amount: minor(-2400n) });
  expect((await proofOf('2026-01-01')).differences).toMatchObject([{ cause: 'account-differs', amount: 100n }]);
});

test('tax not yet due is proven in the period of its document', async () => {
  const value = { ...(await registration()), basis: 'on-payment' as const };
  await act(db, keepRegistration, { value, isNew: false }, '2026-01-01');
  const document = await issued(db);
  expect((await proofOf('2026-01-01')).holds).toBe(true);
  const [entry] = await db.taxEntries.where('documentId').equals(document.id).toArray();
  await db.taxEntries.put({ ...present(entry, 'the entry'), tax: minor(2299n) });
  expect((await proofOf('2026-01-01')).differences).toMatchObject([{ cause: 'not-yet-due-differs', amount: -1n }]);
});
