import { act, issued, lineOf, momentOn, newBook } from 'tests/book';
import { expectSoundBook } from 'tests/soundBook';
import { minor } from '@/core/kernel/money';
import { wordRefusals } from '@/core/wording/refusals';
import { present } from '@/store/load';
import { perform } from '@/store/perform';
import type { BookDb } from '@/store/schema';
import { fileReturn } from '@/store/tax/actions/fileReturn';
import { reopenReturn } from '@/store/tax/actions/reopenReturn';
import { typeBoxes } from '@/store/tax/actions/typedBoxes';
import { owedReturns } from '@/store/tax/queries/owed';

const PERIOD = { registrationId: 'ie-vat', start: '2026-01-01' };
const MARCH = '2026-03-05';
const box = (id: string, amount: bigint, over = {}) => ({
  box: id,
  amount: minor(amount),
  words: 'purchase ledger',
  account: '',
  ...over,
});

/** One invoice of 1,000.00 and 230.00 of VAT. */
async function bookWithSale(): Promise<BookDb> {
  const db = await newBook();
  await issued(db, { lines: [lineOf({ price: '1000' })] }, '2026-01-15');
  return db;
}

const filingLines = async (db: BookDb) => {
  const { filed } = present(await db.taxPeriods.get('ie-vat|2026-01-01'), 'the period');
  const lines = await db.journalLines
    .where('entryId')
    .equals(filed?.entryId ?? '')
    .toArray();
  return Object.fromEntries(lines.map(({ account, amount }) => [`${account}${amount > 0n ? ' Dr' : ' Cr'}`, amount]));
};

test('input tax is posted against tax payable as the return is filed, and what has no account stands on the form alone', async () => {
  const db = await bookWithSale();
  const typed = [box('T2', 80_00n, { account: '7900' }), box('E2', 500_00n)];
  await act(db, typeBoxes, { ...PERIOD, typed }, MARCH);
  await act(db, fileReturn, { ...PERIOD, note: '' }, MARCH);
  // Dr 2200 230.00 Cr 2210 230.00; Dr 2210 80.00 Cr 7900 80.00.
  expect(await filingLines(db)).toEqual({
    '2200 Dr': 230_00n,
    '2210 Cr': -230_00n,
    '2210 Dr': 80_00n,
    '7900 Cr': -80_00n,
  });
  const { filed } = present(await db.taxPeriods.get('ie-vat|2026-01-01'), 'the period');
  const amounts = Object.fromEntries(filed?.form?.boxes.map((one) => [one.box, one.amount]) ?? []);
  expect(amounts).toMatchObject({ T1: 230_00n, T2: 80_00n, T3: 150_00n, T4: 0n, E2: 500_00n });
  expect([filed?.form?.due, filed?.typed]).toEqual([150_00n, typed]);
  const registration = present(await db.registrations.get('ie-vat'), 'the registration');
  const owed = await owedReturns(db, registration, await db.accounts.toArray());
  expect(owed.returns.map(({ payable }) => payable)).toEqual([150_00n]);
  await expectSoundBook(db);
});

test('opened again its amounts are still there, and filed with nothing changed it states the same', async () => {
  const db = await bookWithSale();
  await act(db, typeBoxes, { ...PERIOD, typed: [box('T2', 80_00n, { account: '7900' })] }, MARCH);
  await act(db, fileReturn, { ...PERIOD, note: '' }, MARCH);
  const first = (await db.taxPeriods.get('ie-vat|2026-01-01'))?.filed;
  await act(db, reopenReturn, { ...PERIOD, reason: 'a look' }, MARCH);
  expect((await db.returnBoxes.get('ie-vat|2026-01-01'))?.typed).toHaveLength(1);
  await act(db, fileReturn, { ...PERIOD, note: '' }, MARCH);
  const second = (await db.taxPeriods.get('ie-vat|2026-01-01'))?.filed;
  expect(second?.form).toEqual(first?.form);
  expect(second?.figures).toEqual(first?.figures);
  await expectSoundBook(db);
});

test.each<[string, object, RegExp]>([
  ['a box that is worked out', box('T3', 1_00n), /Choose a box that other books feed/],
  ['a box that no form has', box('T9', 1_00n), /Choose a box that other books feed/],
  ['no amount', box('T2', 0n), /Enter an amount/],
  ['no word on where it comes from', box('T2', 1_00n, { words: ' ' }), /Say where the amount comes from/],
  ['the account of output tax', box('T2', 1_00n, { account: '2200' }), /Choose an account/],
  ['an account for what is only stated', box('E2', 1_00n, { account: '7900' }), /stands on the form alone/],
])('%s is refused', async (_, typed, words) => {
  const db = await bookWithSale();
  const result = await perform(db, typeBoxes, { ...PERIOD, typed: [typed as never] }, momentOn(MARCH));
  expect(result.ok ? '' : wordRefusals(result.refusals)).toMatch(words);
  expect(await db.returnBoxes.count()).toBe(0);
});

test('nothing is typed into a return that is filed', async () => {
  const db = await bookWithSale();
  await act(db, fileReturn, { ...PERIOD, note: '' }, MARCH);
  const result = await perform(db, typeBoxes, { ...PERIOD, typed: [box('T2', 1_00n)] }, momentOn(MARCH));
  expect(result.ok ? [] : result.refusals.map(({ code }) => code)).toEqual(['already-filed']);
});
