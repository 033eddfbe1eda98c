import fc from 'fast-check';
import { act, momentOn, newBook } from 'tests/book';
import { expectSoundBook } from 'tests/soundBook';
import { addDays, isoDate } from '@/core/kernel/date';
import { type Minor, minor, negated, total } from '@/core/kernel/money';
import { type JournalTemplate, nextJournal } from '@/core/ledger/journalTemplate';
import type { Registration } from '@/core/tax/registration';
import { journalJob } from '@/jobs/journalRound';
import { runJobs } from '@/jobs/runJobs';
import { stateOpeningBalances } from '@/store/ledger/actions/openAccounts';
import {
  endJournalRepeat,
  postJournalAgain,
  removeJournalTemplate,
  takeBackJournal,
  writeJournal,
} from '@/store/ledger/actions/writeJournal';
import { openingBalances } from '@/store/ledger/queries/openingBalances';
import { perform } from '@/store/perform';
import type { BookDb } from '@/store/schema';
import { type KeptAs, postRepeat } from './journal';

const rent = (amount: Minor) => [
  { account: '7910', amount },
  { account: '3000', amount: negated(amount) },
];

const keeping = (over: Partial<KeptAs> = {}) => ({ name: 'Rent', months: 1, until: '', ...over });

async function written(db: BookDb, over: { takenBack?: boolean; keep?: KeptAs; date?: string } = {}) {
  const { date = '2026-01-31', ...rest } = over;
  return act(db, writeJournal, { date, text: 'Rent', sides: rent(minor(50_000n)), ...rest }, '2026-01-31');
}

const posted = async (db: BookDb) =>
  (await db.journal.orderBy('[date+id]').toArray()).map(({ date, text }) => `${date} ${text}`);

/** Does all that is due on a day. */
const roundOn = (db: BookDb, day: string) => runJobs(db, [journalJob], () => momentOn(day));

describe('a journal that is taken back', () => {
  test('on the first day of the next month, as accruals are', async () => {
    const db = await newBook();
    await written(db, { takenBack: true, date: '2026-01-20' });
    expect(await posted(db)).toEqual(['2026-01-20 Rent', '2026-02-01 Rent, taken back']);
    await expectSoundBook(db);
  });
  test('on a day of choice, not before its own, and no entry but a manual one', async () => {
    const db = await newBook();
    const { id } = await written(db);
    const early = await perform(db, takeBackJournal, { entryId: id, date: '2026-01-30' }, momentOn('2026-02-02'));
    expect(early.ok ? [] : early.refusals).toMatchObject([{ code: 'invalid', path: 'date' }]);
    await act(db, takeBackJournal, { entryId: id, date: '2026-02-15' }, '2026-02-15');
    expect(await posted(db)).toEqual(['2026-01-31 Rent', '2026-02-15 Rent, taken back']);
    const lines = await db.journalLines.toArray();
    expect(total(lines.filter(({ account }) => account === '7910').map(({ amount }) => amount))).toBe(0n);
  });
});

describe('a journal that repeats', () => {
  test('posts itself at each month’s end, also after weeks away, until its end', async () => {
    const db = await newBook();
    await written(db, { keep: keeping({ until: '2026-04-30' }) });
    await roundOn(db, '2026-02-27');
    expect(await posted(db)).toEqual(['2026-01-31 Rent']);
    await roundOn(db, '2026-06-10');
    expect(await posted(db)).toEqual(['2026-01-31 Rent', '2026-02-28 Rent', '2026-03-31 Rent', '2026-04-30 Rent']);
    expect((await db.journalTemplates.toArray()).map(({ nextDue }) => nextDue)).toEqual(['']);
    await expectSoundBook(db);
  });
  test('is dated the first open day where its own is locked, and says which it is for', async () => {
    const db = await newBook();
    await written(db, { keep: keeping() });
    const book = await db.book.get('book');
    if (book === undefined) throw new Error('the book');
    await db.book.put({ ...book, lockedUntil: isoDate('2026-02-28') });
    await roundOn(db, '2026-03-02');
    expect(await posted(db)).toEqual(['2026-01-31 Rent', '2026-03-01 Rent, of 28 Feb 2026']);
  });
  test('touches no tax account in a filed period of any registration: it waits for the day after the last', async () => {
    const db = await newBook();
    const [first] = await db.registrations.toArray();
    if (first === undefined) throw new Error('the registration');
    const filed = (id: string, until: string): Registration => ({ ...first, id, filedUntil: isoDate(until) });
    const template: JournalTemplate = {
      ...{ id: 'template', name: 'Correction', text: 'Correction', takenBack: false, madeUntil: isoDate('2026-01-31') },
      sides: [
        { account: '2200', amount: minor(100n) },
        { account: '7910', amount: minor(-100n) },
      ],
      repeat: { rhythm: { unit: 'month', every: 1, lastDay: true }, first: isoDate('2026-01-31'), until: '' },
      nextDue: isoDate('2026-02-28'),
    };
    const datedWith = async (...registrations: Registration[]) => {
      const chart = await db.accounts.toArray();
      const decided = postRepeat(template, { chart, registrations, lockedUntil: '' }, momentOn('2026-06-01'));
      return decided.ok ? decided.value.changes.add?.journal?.[0]?.date : decided.refusals;
    };
    expect(await datedWith(filed('one', '2026-01-31'))).toBe('2026-02-28');
    expect(await datedWith(filed('one', '2026-02-28'), filed('other', '2026-04-30'))).toBe('2026-05-01');
    expect(await datedWith(filed('one', '2026-04-30'), filed('other', '2026-02-28'))).toBe('2026-05-01');
  });
  test('is never posted twice for a day, by two tabs that find it due', async () => {
    const db = await newBook();
    await written(db, { keep: keeping() });
    const [template] = await db.journalTemplates.toArray();
    const input = { templateId: template?.id ?? '' };
    const both = await Promise.all([1, 2].map(() => perform(db, postJournalAgain, input, momentOn('2026-03-01'))));
    expect(both.map(({ ok }) => ok)).toEqual([true, false]);
    expect(await posted(db)).toEqual(['2026-01-31 Rent', '2026-02-28 Rent']);
  });
  test('ends when it is told to, and is gone when it is removed; what was posted stays', async () => {
    const db = await newBook();
    await written(db, { keep: keeping() });
    const [template] = await db.journalTemplates.toArray();
    const templateId = template?.id ?? '';
    await act(db, endJournalRepeat, { templateId }, '2026-02-01');
    await roundOn(db, '2026-06-10');
    expect(await posted(db)).toEqual(['2026-01-31 Rent']);
    await act(db, removeJournalTemplate, { templateId }, '2026-06-10');
    expect(await db.journalTemplates.count()).toBe(0);
  });
  test.each<[string, Partial<KeptAs>, string]>([
    ['without a name', { name: ' ' }, 'keep.name'],
    ['in parts of a month', { months: 0.5 }, 'keep.months'],
    ['until no day', { until: 'some day' }, 'keep.until'],
  ])('is not kept %s', async (_, over, path) => {
    const db = await newBook();
    const input = { date: '2026-01-31', text: 'Rent', sides: rent(minor(1n)), keep: keeping(over) };
    const result = await perform(db, writeJournal, input, momentOn('2026-01-31'));
    expect(result.ok ? [] : result.refusals.map((refusal) => refusal.path)).toEqual([path]);
    expect(await db.journal.count()).toBe(0);
  });
  test('misses none and doubles none, whatever its first day', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 800 }), fc.integer({ min: 1, max: 12 }), (offset, every) => {
        const first = addDays(isoDate('2026-01-01'), offset);
        const repeat = { rhythm: { unit: 'month', every, lastDay: false }, first, until: '' } as const;
        const days: string[] = [first];
        for (let i = 0; i < 12; i++) days.push(nextJournal(repeat, isoDate(days.at(-1) ?? '')));
        const months = days.map((one) => Number(one.slice(0, 4)) * 12 + Number(one.slice(5, 7)));
        expect(months.map((month) => month - (months[0] ?? 0))).toEqual(days.map((_, i) => i * every));
      }),
    );
  });
});

describe('opening balances by account', () => {
  const state = (db: BookDb, balances: readonly { account: string; amount: Minor }[]) =>
    act(db, stateOpeningBalances, { date: '2025-12-31', balances }, '2026-01-02');
  const balanceOf = async (db: BookDb, account: string) =>
    total((await db.journalLines.toArray()).filter((line) => line.account === account).map(({ amount }) => amount));

  test('stand against opening balances, and what is stated again is posted as a difference', async () => {
    const db = await newBook();
    await state(db, [
      { account: '1010', amount: minor(20_000n) },
      { account: '3000', amount: minor(-50_000n) },
    ]);
    expect([await balanceOf(db, '1010'), await balanceOf(db, '3900')]).toEqual([20_000n, 30_000n]);
    await state(db, [{ account: '1010', amount: minor(25_000n) }]);
    expect([await balanceOf(db, '1010'), await balanceOf(db, '3900')]).toEqual([25_000n, 25_000n]);
    expect((await openingBalances(db)).stated.get('1010')).toBe(25_000n);
    await expectSoundBook(db);
  });
  test.each(['1100', '2200', '1000', '3900'])(
    'are not stated of account %s, which something else says',
    async (account) => {
      const db = await newBook();
      const input = { date: '2025-12-31', balances: [{ account, amount: minor(100n) }] };
      const result = await perform(db, stateOpeningBalances, input, momentOn('2026-01-02'));
      expect(result.ok ? [] : result.refusals).toMatchObject([{ code: 'unknown', path: 'balances[0]' }]);
    },
  );
});
