import { act, issued, momentOn, newBook } from 'tests/book';
import { expectSoundBook } from 'tests/soundBook';
import type { Account } from '@/core/ledger/account';
import { wordRefusals } from '@/core/wording/refusals';
import { keepChartAccount } from '@/store/ledger/actions/accounts';
import { present } from '@/store/load';
import { perform } from '@/store/perform';
import type { BookDb } from '@/store/schema';

const DAY = '2026-02-01';
const account = (over: Partial<Account> = {}): Account => ({
  code: '4150',
  name: 'Training',
  type: 'income',
  role: '',
  ...over,
});

async function refused(db: BookDb, value: Account, isNew = true): Promise<string> {
  const result = await perform(db, keepChartAccount, { account: value, isNew }, momentOn(DAY));
  return result.ok ? '' : wordRefusals(result.refusals);
}

const kept = async (db: BookDb, code: string) => present(await db.accounts.get(code), code);

test('an account is added, renamed and ended', async () => {
  const db = await newBook();
  await act(db, keepChartAccount, { account: account(), isNew: true }, DAY);
  await act(db, keepChartAccount, { account: account({ name: ' Courses ', ended: true }), isNew: false }, DAY);
  expect(await kept(db, '4150')).toEqual({ code: '4150', name: 'Courses', type: 'income', role: '', ended: true });
  await act(db, keepChartAccount, { account: account({ ended: false }), isNew: false }, DAY);
  expect(await kept(db, '4150')).toEqual(account());
  await expectSoundBook(db);
});

test('what was posted to keeps its type; a new one may still change', async () => {
  const db = await newBook();
  await issued(db);
  const [used] = (await db.journalLines.toArray()).filter(({ account: code }) => code.startsWith('4'));
  const income = await kept(db, used?.account ?? '');
  expect(await refused(db, { ...income, type: 'expense' }, false)).toMatch(/Keep income/);
  expect(await refused(db, { ...income, name: 'Sales' }, false)).toBe('');
  await act(db, keepChartAccount, { account: account(), isNew: true }, DAY);
  expect(await refused(db, account({ type: 'expense' }), false)).toBe('');
});

test.each<[string, Partial<Account>, boolean]>([
  ['a code that is taken', { code: '4000' }, true],
  ['a code of spaces', { code: 'a b' }, true],
  ['a code that is too long', { code: '1234567890123' }, true],
  ['no name', { name: ' ' }, true],
  ['no such type', { type: 'money' as never }, true],
  ['an account that is not there', { code: '4999' }, false],
  ['another type of an account that the program posts to', { code: '1100', type: 'liability' }, false],
  ['the end of an account that the program posts to', { code: '1100', type: 'asset', ended: true }, false],
])('%s is refused', async (_, over, isNew) => {
  const db = await newBook();
  const before = await db.accounts.toArray();
  expect(await refused(db, account(over), isNew)).not.toBe('');
  expect(await db.accounts.toArray()).toEqual(before);
});

test('nobody gives a role by hand', async () => {
  const db = await newBook();
  await act(db, keepChartAccount, { account: account({ role: 'receivables' }), isNew: true }, DAY);
  expect((await kept(db, '4150')).role).toBe('');
});
