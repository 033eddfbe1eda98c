import { act, documentOf, issued, lineOf, newBook } from 'tests/book';
import { currency } from '@/core/kernel/currency';
import { isoDate } from '@/core/kernel/date';
import { decimal } from '@/core/kernel/decimal';
import { type Minor, minor } from '@/core/kernel/money';
import { archiveBook } from './archive';
import { writeJournal } from './ledger/actions/writeJournal';
import { openArchive } from './openArchive';
import { recordReceipt } from './payments/actions/recordReceipt';
import { creditInvoice } from './sales/actions/creditInvoice';
import { BookDb } from './schema';
import { keepExchangeRate } from './setup/actions/taxSetup';
import { fileReturn } from './tax/actions/fileReturn';
import { payAuthority } from './tax/actions/payTax';
import { proveBook } from './tax/queries/proveBook';

/* One thing is spoilt in a sound book; the proof of the whole names it, with its cause and its place. */

let bytes: Uint8Array;

beforeAll(async () => {
  const db = await newBook();
  const USD = currency('USD');
  const rate = { currency: USD, date: isoDate('2026-01-01'), perHome: decimal('1.25'), source: 'test' };
  await act(db, keepExchangeRate, { value: { ...rate, id: 'USD|2026-01-01' }, isNew: true }, '2026-01-01');
  const deferral = { kind: 'months', months: 6, first: '2026-01' } as const;
  const first = await issued(db, { lines: [lineOf({ price: '1000' })] }, '2026-01-12');
  await issued(db, { lines: [lineOf({ price: '600', deferral })], customerId: 'clewbay' }, '2026-01-20');
  await issued(db, { currency: 'USD', lines: [lineOf({ price: '500' })] }, '2026-02-03');
  const request = { kind: 'amount', amount: minor(12_300n) } as const;
  await act(db, creditInvoice, { documentId: first.id, date: '2026-02-10', reason: 'late', request }, '2026-02-10');
  const parts = [{ method: 'bank', amount: minor(50_000n) }] as const;
  const to = [{ documentId: first.id, number: first.number, money: minor(50_000n) }];
  const { customerId, content } = first;
  const receipt = { customerId, date: '2026-02-15', reference: '', currency: content.currency, parts, to } as const;
  await act(db, recordReceipt, receipt, '2026-02-15');
  await act(db, fileReturn, { registrationId: 'ie-vat', start: '2026-01-01', note: '' }, '2026-03-05');
  const paid = { registrationId: 'ie-vat', start: '2026-01-01', date: '2026-03-18', amount: minor(1_000n) };
  await act(db, payAuthority, paid, '2026-03-18');
  bytes = await archiveBook(db, '2026-03-20T12:00:00.000Z');
});

let db: BookDb;
let opened = 0;

beforeEach(async () => {
  db = new BookDb(`planted-${opened++}`);
  expect(await openArchive(db, bytes)).toMatchObject({ ok: true });
});
afterEach(() => db.delete());

/** What the proof says, one line for each difference: check, subject and cause. */
async function said(): Promise<readonly string[]> {
  const checks = await proveBook(db, () => undefined);
  return checks.flatMap(({ check, holds, differences }) =>
    holds ? [] : [`${check}:`, ...differences.map(({ subject, cause }) => `${check}: ${subject}: ${cause}`)],
  );
}

const invoice = async (at = 0) => {
  const all = await db.documents
    .where('kind')
    .equals('invoice')
    .sortBy('position')
    .catch(() => []);
  const found = all[at] ?? (await db.documents.toArray()).filter(({ kind }) => kind === 'invoice')[at];
  if (found === undefined) throw new Error('no invoice');
  return documentOf(db, found.id);
};
const more = (amount: Minor) => minor(amount + 1n);
const row = async <T>(rows: Promise<readonly T[]>, of: (one: T) => boolean = () => true): Promise<T> => {
  const found = (await rows).find(of);
  if (found === undefined) throw new Error('no such row');
  return found;
};

type Fault = readonly [what: string, plant: () => Promise<unknown>, found: RegExp];

const FAULTS: readonly Fault[] = [
  [
    'an amount of a document altered',
    async () => {
      const one = await invoice();
      const totals = { ...one.figures.totals, payable: more(one.figures.totals.payable) };
      return db.documents.put({ ...one, figures: { ...one.figures, totals } });
    },
    /INV-2026-0001/,
  ],
  [
    'words of a document altered',
    async () => {
      const one = await invoice();
      return db.documents.put({ ...one, content: { ...one.content, note: 'other words' } });
    },
    /seals: INV-2026-0001: does not fit its seal/,
  ],
  [
    'a seal that belongs to another document',
    async () => {
      const [one, other] = [await invoice(0), await invoice(1)];
      return db.documents.put({ ...one, seal: other.seal });
    },
    /seals: INV-2026-000\d: does not fit its seal/,
  ],
  ['a document taken out', async () => db.documents.delete((await invoice(1)).id), /seals: INV-2026-000\d/],
  [
    'the last document taken out',
    async () => db.documents.delete((await invoice(2)).id),
    /seals: .*(missing|does not fit)/,
  ],
  [
    'a number given twice',
    async () => {
      const [one, other] = [await invoice(0), await invoice(1)];
      return db.documents.put({ ...other, number: one.number });
    },
    /INV-2026-000\d/,
  ],
  ['a series that is gone', async () => db.series.delete((await invoice()).seriesId), /rows: .*series/],
  [
    'an entry that is missing',
    async () => {
      const { entryId } = await invoice();
      await db.journalLines.where('entryId').equals(entryId).delete();
      return db.journal.delete(entryId);
    },
    /rows: .*entry/,
  ],
  [
    'a line of an entry that is missing',
    async () => db.journalLines.delete((await row(db.journalLines.toArray(), ({ account }) => account === '2200')).id),
    /entries: .*debits and credits differ/,
  ],
  [
    'an entry that does not balance',
    async () => {
      const line = await row(db.journalLines.toArray(), ({ account }) => account === '1000');
      return db.journalLines.put({ ...line, amount: more(line.amount) });
    },
    /entries: .*debits and credits differ/,
  ],
  [
    'an amount moved to another account',
    async () => {
      const line = await row(db.journalLines.toArray(), ({ account }) => account === '1100');
      return db.journalLines.put({ ...line, account: '1000' });
    },
    /receivables: .*not explained/,
  ],
  [
    'a line dated in another month',
    async () => {
      const line = await row(db.journalLines.toArray(), ({ account }) => account === '4000' || account === '4100');
      return db.journalLines.put({ ...line, date: isoDate('2026-05-01') });
    },
    /kept-balances: .*balance kept differs/,
  ],
  [
    'a tax line in the wrong period',
    async () => {
      const line = await row(
        db.journalLines.toArray(),
        ({ taxPeriodId, taxCode }) => taxPeriodId !== '' && taxCode !== '',
      );
      return db.journalLines.put({ ...line, taxPeriodId: 'ie-vat|2026-03-01' });
    },
    /periods: /,
  ],
  [
    'a tax entry that is missing',
    async () => db.taxEntries.delete((await row(db.taxEntries.toArray())).id),
    /periods: .*(without|differ)/,
  ],
  [
    'a tax entry altered',
    async () => {
      const entry = await row(db.taxEntries.toArray());
      return db.taxEntries.put({ ...entry, tax: more(entry.tax) });
    },
    /periods: .*differ/,
  ],
  [
    'a tax entry in the wrong period',
    async () => {
      const entry = await row(db.taxEntries.toArray());
      return db.taxEntries.put({ ...entry, periodId: 'ie-vat|2026-03-01' });
    },
    /periods: |rows: .*period/,
  ],
  [
    'a balance of a return out of step',
    async () => {
      const one = await row(db.taxRows.toArray());
      return db.taxRows.put({ ...one, tax: more(one.tax) });
    },
    /periods: .*balance differs/,
  ],
  [
    'a balance of an account out of step',
    async () => {
      const one = await row(db.accountMonths.toArray());
      return db.accountMonths.put({ ...one, amount: more(one.amount) });
    },
    /kept-balances: .*balance kept differs/,
  ],
  [
    'a home amount that is not that of the rate',
    async () => {
      const one = await row(db.documents.toArray(), ({ content }) => content.currency === 'USD');
      return db.documents.put({ ...one, openHome: more(one.openHome) });
    },
    /receivables: .*not explained/,
  ],
  [
    'an open amount that allocations do not explain',
    async () => {
      const one = await row(db.documents.toArray(), ({ received }) => received !== 0n);
      return db.documents.put({ ...one, open: more(one.open) });
    },
    /rows: INV-2026-0001, open amount: what is owed less what was settled was expected/,
  ],
  [
    'an allocation of a receipt that is not there',
    async () => {
      const one = await row(db.allocations.toArray(), ({ creditKind }) => creditKind === 'receipt');
      return db.allocations.put({ ...one, creditId: 'nowhere' });
    },
    /rows: allocation of REC-2026-0001 to INV-2026-0001, credit: a receipt of the book was expected/,
  ],
  [
    'an allocation of more than was paid',
    async () => {
      const one = await row(db.allocations.toArray(), ({ creditKind }) => creditKind === 'receipt');
      return db.allocations.put({ ...one, amount: more(one.amount) });
    },
    /rows: receipt REC-2026-0001, open amount: what is left of it by its allocations was expected/,
  ],
  [
    'a receipt altered',
    async () => {
      const one = await row(db.receipts.toArray());
      return db.receipts.put({ ...one, amount: more(one.amount) });
    },
    /rows: receipt REC-2026-0001, open amount/,
  ],
  [
    'a receipt taken out',
    async () => db.receipts.delete((await row(db.receipts.toArray())).id),
    /rows: allocation of REC-2026-0001 to INV-2026-0001, credit/,
  ],
  [
    'a plan of deferred income altered',
    async () => {
      const plan = await row(db.deferrals.toArray());
      const entries = plan.entries.map((entry, i) => (i === 3 ? { ...entry, amount: more(entry.amount) } : entry));
      return db.deferrals.put({ ...plan, entries });
    },
    /deferred-income: |rows: deferrals/,
  ],
  [
    'the entry of a filing that is missing',
    async () => {
      const { filed } = await row(db.taxPeriods.toArray(), (period) => period.filed !== null);
      await db.journalLines
        .where('entryId')
        .equals(filed?.entryId ?? '')
        .delete();
      return db.journal.delete(filed?.entryId ?? '');
    },
    /rows: taxPeriods, row \d+|periods: /,
  ],
  [
    'a payment to the authority without its return',
    async () => {
      const one = await row(db.taxPayments.toArray());
      return db.taxPayments.put({ ...one, periodId: 'nowhere' });
    },
    /rows: payment .*, period: the return it pays was expected/,
  ],
  [
    'a customer that is gone',
    async () => db.customers.delete((await invoice()).customerId),
    /rows: INV-2026-0001, customer: a customer of the book was expected/,
  ],
  [
    'a counter behind its numbers',
    async () => {
      const one = await row(db.series.toArray(), ({ id }) => id === 'invoice');
      return db.series.put({ ...one, next: 1 } as never);
    },
    /rows: series, row \d+|seals: /,
  ],
  [
    'a manual journal on output tax',
    async () => {
      const sides = [
        { account: '2200', amount: minor(500n) },
        { account: '7900', amount: minor(-500n) },
      ];
      return act(db, writeJournal, { date: '2026-03-19', text: 'By hand', sides }, '2026-03-19');
    },
    /periods: .*manual journal/,
  ],
];

test('a book that nothing was done to holds', async () => expect(await said()).toEqual([]));

test.each(FAULTS)('%s is found, with its cause and place', async (_, plant, found) => {
  await plant();
  expect((await said()).join('\n')).toMatch(found);
});
