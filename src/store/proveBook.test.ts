import { act, issued, lineOf, newBook } from 'tests/book';
import { minor } from '@/core/kernel/money';
import { bookHolds } from '@/core/returns/bookProof';
import { writeJournal } from './ledger/actions/writeJournal';
import { creditInvoice } from './sales/actions/creditInvoice';
import type { BookDb } from './schema';
import { proveBook } from './tax/queries/proveBook';

/* A book is proven whole; each thing that is wrong is named by its own check. */

let db: BookDb;
beforeEach(async () => {
  db = await newBook();
  const deferral = { kind: 'months', months: 6, first: '2026-01' } as const;
  const { id } = await issued(db, { lines: [lineOf({ price: '600', deferral })] }, '2026-01-12');
  await issued(db, { lines: [lineOf({ price: '40' })], customerId: 'clewbay' }, '2026-02-03');
  const request = { kind: 'amount', amount: minor(12_300n) } as const;
  await act(db, creditInvoice, { documentId: id, date: '2026-02-10', reason: 'ended', request }, '2026-02-10');
});

async function broken() {
  const checks = await proveBook(db, () => undefined);
  return checks
    .filter(({ check, holds }) => !holds && check !== 'rows')
    .map(({ check, differences }) => [check, differences[0]?.cause]);
}

test('a sound book holds in all, and says how far it is', async () => {
  const told: (readonly [number, number])[] = [];
  const checks = await proveBook(db, (done, of) => told.push([done, of]));
  expect(bookHolds(checks)).toBe(true);
  expect(checks.map(({ check }) => check)).toEqual([
    'entries',
    'kept-balances',
    'periods',
    'receivables',
    'withholding',
    'deferred-income',
    'unrealised',
    'bank',
    'seals',
    'rows',
  ]);
  const [done, of] = told.at(-1) ?? [0, 1];
  expect(done).toBe(of);
});

test.each<[string, (book: BookDb) => Promise<unknown>, readonly (readonly [string, string])[]]>([
  [
    'an entry that does not balance',
    async (book) => book.journalLines.update((await book.journalLines.toArray())[0]?.id ?? '', { amount: minor(1n) }),
    [
      ['entries', 'debits and credits differ'],
      ['kept-balances', 'balance kept differs'],
      ['receivables', 'not explained'],
    ],
  ],
  [
    'a balance that is kept wrongly',
    async (book) => {
      const month = (await book.accountMonths.toArray())[0];
      if (month !== undefined) await book.accountMonths.put({ ...month, amount: minor(month.amount + 1n) });
    },
    [['kept-balances', 'balance kept differs']],
  ],
  [
    'a manual journal on receivables',
    (book) =>
      act(
        book,
        writeJournal,
        {
          date: '2026-02-11',
          text: 'By hand',
          sides: [
            { account: '1100', amount: minor(500n) },
            { account: '1000', amount: minor(-500n) },
          ],
        },
        '2026-02-11',
      ),
    [['receivables', 'manual journal']],
  ],
  [
    'a plan that says more than its entries',
    async (book) => {
      const plan = (await book.deferrals.toArray())[0];
      const last = plan?.entries.at(-2);
      if (plan === undefined || last === undefined) throw new Error('no plan');
      await book.deferrals.put({
        ...plan,
        entries: [...plan.entries, { ...last, amount: minor(100n), taken: minor(0n) }],
      });
    },
    [['deferred-income', 'not explained']],
  ],
  [
    'a document that is missing from its series',
    async (book) => book.documents.where('number').equals('INV-2026-0001').delete(),
    [
      ['periods', 'entry without document'],
      ['receivables', 'not explained'],
      ['seals', 'does not fit its seal or its place'],
    ],
  ],
])('%s is named', async (_, spoil, found) => {
  await spoil(db);
  expect(await broken()).toEqual(found);
});
