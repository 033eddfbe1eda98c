import { act, momentOn, newBook } from 'tests/book';
import { expectSoundBook } from 'tests/soundBook';
import { openableAccounts } from '@/core/decisions/ledger/openAccounts';
import { BALANCE_HEADS } from '@/core/files/balancesFile';
import { BOX_HEADS } from '@/core/files/boxesFile';
import { writeCsv } from '@/core/files/csv';
import { minor } from '@/core/kernel/money';
import { stateOpeningBalances } from '../ledger/actions/openAccounts';
import { openingBalances } from '../ledger/queries/openingBalances';
import { perform } from '../perform';
import type { BookDb } from '../schema';
import { fileReturn } from '../tax/actions/fileReturn';
import { typeBoxes } from '../tax/actions/typedBoxes';
import { importBalances, importBoxes } from './actions/importBook';

/* What a business brings along from other books: what its accounts stood at, and what goes into its returns. */

const TODAY = '2026-03-05';
type Row = readonly string[];

const wrongRows = async (db: BookDb, action: typeof importBalances, text: string): Promise<readonly string[]> => {
  const result = await perform(db, action, { text }, momentOn(TODAY));
  return result.ok ? [] : result.refusals.map(({ code, path }) => `${code} ${path}`);
};

describe('opening balances from a file', () => {
  const file = (rows: readonly Row[]) => writeCsv(BALANCE_HEADS, rows);
  const GOOD: readonly Row[] = [
    ['2025-12-31', '7930', '1200.00', ''],
    ['2025-12-31', '7900', '', '450'],
  ];

  test('are posted on the day, with the rest to opening balances', async () => {
    const db = await newBook();
    expect(await act(db, importBalances, { text: file(GOOD) }, TODAY)).toBe(2);
    const [entry] = await db.journal.toArray();
    expect(entry).toMatchObject({ date: '2025-12-31', kind: 'account-opening' });
    const opening = (await db.accounts.toArray()).find(({ role }) => role === 'opening')?.code ?? '';
    // 1,200.00 Dr and 450.00 Cr leave 750.00 Cr.
    expect(Object.fromEntries((await db.journalLines.toArray()).map((line) => [line.account, line.amount]))).toEqual({
      7930: 1200_00n,
      7900: -450_00n,
      [opening]: -750_00n,
    });
    await expectSoundBook(db);
  });

  test('are the same as those that are typed', async () => {
    const [typed, read] = [await newBook(), await newBook()];
    await act(
      typed,
      stateOpeningBalances,
      {
        date: '2025-12-31',
        balances: [
          { account: '7930', amount: minor(1200_00n) },
          { account: '7900', amount: minor(-450_00n) },
        ],
      },
      TODAY,
    );
    await act(read, importBalances, { text: file(GOOD) }, TODAY);
    const months = (db: BookDb) => db.accountMonths.toArray();
    expect(await months(read)).toEqual(await months(typed));
  });

  test('of a second file move what was stated by the difference, and leave what it does not name', async () => {
    const db = await newBook();
    await act(db, importBalances, { text: file(GOOD) }, TODAY);
    await act(db, importBalances, { text: file([['2025-12-31', '7930', '1000', '']]) }, TODAY);
    const { stated } = await openingBalances(db);
    expect([stated.get('7930'), stated.get('7900')]).toEqual([1000_00n, -450_00n]);
    await expectSoundBook(db);
  });

  test('a day may be written as it is typed, and an amount may stand on both sides', async () => {
    const db = await newBook();
    await act(db, importBalances, { text: file([['31 Dec 2025', '7930', '100', '30']]) }, TODAY);
    expect((await openingBalances(db)).stated.get('7930')).toBe(70_00n);
  });

  test('of every account that can be opened come in from one file', async () => {
    const db = await newBook();
    const accounts = openableAccounts(await openingBalances(db));
    const rows = accounts.map(({ code }, i): Row => ['2025-12-31', code, `${i + 1}.25`, '']);
    expect(await act(db, importBalances, { text: file(rows) }, TODAY)).toBe(accounts.length);
    const { stated } = await openingBalances(db);
    expect(accounts.map(({ code }) => stated.get(code))).toEqual(accounts.map((_, i) => BigInt(i + 1) * 100n + 25n));
    await expectSoundBook(db);
  });

  test.each<[string, readonly Row[], string]>([
    ['an account that there is none of', [['2025-12-31', '9999', '1', '']], 'unknown row 4'],
    ['receivables, which open invoices say', [['2025-12-31', '1100', '1', '']], 'unknown row 4'],
    ['an amount that is none', [['2025-12-31', '3000', 'lots', '']], 'invalid row 4, debit'],
    ['an amount with too many decimals', [['2025-12-31', '3000', '', '1.005']], 'invalid row 4, credit'],
    ['an account twice', [['2025-12-31', '7930', '1', '']], 'duplicate row 4, account'],
    [
      'an account that there is none of, behind one that stands twice',
      [
        ['2025-12-31', '7930', '1', ''],
        ['2025-12-31', '9999', '1', ''],
      ],
      'unknown row 5',
    ],
    ['a second day', [['2026-01-31', '3000', '1', '']], 'invalid row 4, date'],
  ])('are refused with %s, at its row, and nothing is posted', async (_, rows, wrong) => {
    const db = await newBook();
    expect(await wrongRows(db, importBalances, file([...GOOD, ...rows]))).toContain(wrong);
    expect(await db.journal.count()).toBe(0);
  });

  test.each<[string, string, string]>([
    ['a day to come', file([['2027-01-01', '7930', '1', '']]), 'invalid row 2, date'],
    ['a day that is none', file([['soon', '7930', '1', '']]), 'invalid row 2, date'],
    ['nothing in it', file([]), 'missing '],
    ['zeros alone', file([['2025-12-31', '7930', '', '0']]), 'missing row 2'],
    ['other heads', 'konto,soll,haben\n7930,1,\n', 'invalid row 1'],
  ])('a file with %s is refused', async (_, text, wrong) => {
    expect(await wrongRows(await newBook(), importBalances, text)).toEqual([wrong]);
  });
});

describe('amounts of returns from a file', () => {
  const file = (rows: readonly Row[]) => writeCsv(BOX_HEADS, rows);
  const typedOf = async (db: BookDb, period: string) => (await db.returnBoxes.get(`ie-vat|${period}`))?.typed;

  let name = '';
  beforeAll(async () => {
    name = (await (await newBook()).registrations.get('ie-vat'))?.name ?? '';
  });

  test('are those of each return that they name by any of its days, as if they had been typed', async () => {
    const [typed, read] = [await newBook(), await newBook()];
    const amount = (box: string, value: bigint, account = '') => ({
      box,
      amount: minor(value),
      words: 'purchase ledger',
      account,
    });
    const january = [amount('T2', 80_00n, '7900'), amount('E2', 500_00n)];
    await act(typed, typeBoxes, { registrationId: 'ie-vat', start: '2026-01-01', typed: january }, TODAY);
    await act(typed, typeBoxes, { registrationId: 'ie-vat', start: '2026-03-01', typed: [amount('T2', 5_50n)] }, TODAY);
    const text = file([
      [name, '2026-01-01', 'T2', '80', 'purchase ledger', '7900'],
      [name.toUpperCase(), '28 Feb 2026', 'E2', '500.00', 'purchase ledger', ''],
      ['ie-vat', '2026-04-30', 'T2', '5.50', 'purchase ledger', ''],
    ]);
    expect(await act(read, importBoxes, { text }, TODAY)).toBe(3);
    for (const period of ['2026-01-01', '2026-03-01'])
      expect([period, await typedOf(read, period)]).toEqual([period, await typedOf(typed, period)]);
    await act(read, fileReturn, { registrationId: 'ie-vat', start: '2026-01-01', note: '' }, TODAY);
    expect((await read.taxPeriods.get('ie-vat|2026-01-01'))?.filed?.typed).toEqual(january);
    await expectSoundBook(read);
  });

  test('take the place of what was typed for these returns, and of no other', async () => {
    const db = await newBook();
    const rows = (period: string, amount: string) => [name, period, 'T2', amount, 'purchase ledger', ''];
    await act(db, importBoxes, { text: file([rows('2026-01-01', '1'), rows('2026-03-01', '2')]) }, TODAY);
    await act(db, importBoxes, { text: file([rows('2026-03-01', '3')]) }, TODAY);
    const amounts = async (period: string) => (await typedOf(db, period))?.map(({ amount }) => amount);
    expect([await amounts('2026-01-01'), await amounts('2026-03-01')]).toEqual([[1_00n], [3_00n]]);
  });

  test.each<[string, (known: string) => Row, string]>([
    [
      'a registration nobody knows',
      () => ['Atlantis', '2026-01-01', 'T2', '1', 'x', ''],
      'unknown row 3, registration',
    ],
    ['a period that is no day', (known) => [known, 'spring', 'T2', '1', 'x', ''], 'invalid row 3, period'],
    ['a box that is worked out', (known) => [known, '2026-01-01', 'T3', '1', 'x', ''], 'invalid row 3, box'],
    ['no amount', (known) => [known, '2026-01-01', 'T2', '', 'x', ''], 'invalid row 3, amount'],
    ['no words', (known) => [known, '2026-01-01', 'T2', '1', '', ''], 'missing row 3, words'],
    ['the account of output tax', (known) => [known, '2026-01-01', 'T2', '1', 'x', '2200'], 'unknown row 3, account'],
  ])('are refused with %s, at its row, and none is kept', async (_, row, wrong) => {
    const db = await newBook();
    const text = file([[name, '2026-01-01', 'T2', '1', 'purchase ledger', ''], row(name)]);
    expect(await wrongRows(db, importBoxes, text)).toContain(wrong);
    expect(await db.returnBoxes.count()).toBe(0);
  });

  test('of a return that is filed are refused', async () => {
    const db = await newBook();
    await act(db, fileReturn, { registrationId: 'ie-vat', start: '2026-01-01', note: '' }, TODAY);
    const text = file([[name, '2026-02-10', 'T2', '1', 'purchase ledger', '']]);
    expect(await wrongRows(db, importBoxes, text)).toEqual(['already-filed row 2, period']);
  });
});
