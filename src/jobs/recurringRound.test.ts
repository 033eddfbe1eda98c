import fc from 'fast-check';
import { act, draftOf, lineOf, momentOn, newBook } from 'tests/book';
import { expectSoundBook } from 'tests/soundBook';
import type { Recurring } from '@/core/documents/recurring';
import { addDays, isoDate } from '@/core/kernel/date';
import { perform } from '@/store/perform';
import { keepDraft } from '@/store/sales/actions/drafts';
import { issueInvoice } from '@/store/sales/actions/issueInvoice';
import { dropRecurring, keepRecurring, repeatDraft } from '@/store/sales/actions/recurring';
import { dropGroup, keepGroup } from '@/store/sales/actions/runs';
import { draftsFound } from '@/store/sales/queries/documents';
import { madeOfRecurring, waitingRecurring } from '@/store/sales/queries/recurring';
import type { BookDb } from '@/store/schema';
import { changeCustomer } from '@/store/setup/actions/setup';
import { fileReturn } from '@/store/tax/actions/fileReturn';
import { recurringJob, type SendDocument } from './recurringRound';

async function recurringBook(
  over: Partial<Recurring> = {},
  lines = [lineOf({ description: 'Hire {month}', price: '100' })],
) {
  const db = await newBook();
  const draft = await act(db, keepDraft, draftOf({ id: 'pattern', issueDate: '2026-01-31', lines }), '2026-01-02');
  const begun = await act(db, repeatDraft, { draftId: draft.id, name: 'Hire' }, '2026-01-02');
  await act(db, keepRecurring, { ...begun, does: 'issue', paused: false, ...over }, '2026-01-02');
  return db;
}

const nobody: SendDocument = async () => '';

async function open(db: BookDb, today: string, send: SendDocument = nobody): Promise<void> {
  const job = recurringJob(send);
  const moment = () => momentOn(today);
  for (let round = await job.round(db, moment); round.ok && round.value > 0; ) round = await job.round(db, moment);
}

const issuedOn = async (db: BookDb) =>
  (await db.documents.toArray()).sort((a, b) => a.position - b.position).map(({ issueDate }) => issueDate);

test('is made when it is due, dated its own date, oldest first, after weeks away', async () => {
  const db = await recurringBook();
  await open(db, '2026-01-30');
  expect(await issuedOn(db)).toEqual([]);
  await open(db, '2026-04-15');
  expect(await issuedOn(db)).toEqual(['2026-01-31', '2026-02-28', '2026-03-31']);
  const [first] = await db.documents.toArray();
  expect(first?.content.lines[0]?.description).toBe('Hire January 2026');
  expect((await db.recurring.get('pattern'))?.nextDue).toBe('2026-04-30');
  // What it says is no draft of its own, and is not issued itself.
  expect(await draftsFound(db, '', 10)).toEqual([]);
  expect((await perform(db, issueInvoice, { draftId: 'pattern' }, momentOn('2026-04-15'))).ok).toBe(false);
  await expectSoundBook(db);
});

test('waits where its period is filed, where the customer ended, and where a check asks; the person goes on', async () => {
  const db = await recurringBook();
  for (const start of ['2026-01-01'])
    await act(db, fileReturn, { registrationId: 'ie-vat', start, note: '' }, '2026-03-05');
  await open(db, '2026-03-05');
  const waiting = await waitingRecurring(db, 10);
  expect(waiting.map(({ made }) => [made.date, made.why])).toEqual([
    ['2026-01-31', 'Its tax period is filed, until 28 Feb 2026.'],
    ['2026-02-28', 'Its tax period is filed, until 28 Feb 2026.'],
  ]);
  await act(db, issueInvoice, { draftId: waiting[0]?.made.documentId ?? '' }, '2026-03-05');
  expect(await waitingRecurring(db, 10)).toHaveLength(1);
  const customer = await db.customers.get('ballyvaughan');
  if (customer === undefined) throw new Error('no customer');
  const { keys: _, ...record } = customer;
  await act(db, changeCustomer, { ...record, archived: true }, '2026-03-05');
  await open(db, '2026-04-01');
  expect((await waitingRecurring(db, 10)).at(-1)?.made.why).toBe('its customer is archived or merged');
  await expectSoundBook(db);
});

test('stops, is paused, and goes without the dates that were skipped', async () => {
  const skipped = [isoDate('2026-02-28')];
  const db = await recurringBook({ times: 3, skipped });
  await open(db, '2026-12-31');
  expect(await issuedOn(db)).toEqual(['2026-01-31', '2026-03-31']);
  expect((await db.recurring.get('pattern'))?.nextDue).toBe('');
  const paused = await recurringBook({ paused: true });
  await open(paused, '2026-12-31');
  expect(await issuedOn(paused)).toEqual([]);
  await act(db, dropRecurring, { id: 'pattern' }, '2026-12-31');
  expect([await db.drafts.count(), await db.documents.count()]).toEqual([0, 2]);
  await expectSoundBook(db);
});

test('that is only a draft is kept as one; that can’t be sent says why', async () => {
  const drafts = await recurringBook({ does: 'draft' });
  await open(drafts, '2026-02-01');
  expect(await draftsFound(drafts, '', 10)).toHaveLength(1);
  const db = await recurringBook({ does: 'send' });
  await open(db, '2026-02-01', async () => 'no address');
  expect((await db.recurringMade.toArray()).map(({ state, why }) => [state, why])).toEqual([['issued', 'no address']]);
});

describe('for a group', () => {
  const MEMBERS = ['ballyvaughan', 'clewbay', 'nordlicht'];
  async function groupBook(over: Partial<Recurring> = {}, customerIds: readonly string[] = MEMBERS) {
    const db = await recurringBook({ groupId: 'berths', ...over });
    await act(db, keepGroup, { id: 'berths', name: 'Berths', customerIds, rule: null }, '2026-01-02');
    return db;
  }
  const january = 'pattern|2026-01-31';

  test('each date is a run for who belongs to it that day, in the words of each, made and sent once', async () => {
    const db = await groupBook({ does: 'send' });
    const sent: string[] = [];
    const send: SendDocument = async (id) => {
      sent.push(id);
      return '';
    };
    await open(db, '2026-02-01', send);
    const documents = (await db.documents.toArray()).sort((a, b) => a.position - b.position);
    expect(documents.map(({ customerId }) => customerId).sort()).toEqual(MEMBERS);
    expect(documents.map(({ issueDate }) => issueDate)).toEqual(MEMBERS.map(() => '2026-01-31'));
    expect(new Set(documents.map(({ content }) => content.lines[0]?.description))).toEqual(
      new Set(['Hire January 2026', 'Hire Januar 2026']),
    );
    expect(sent.sort()).toEqual(documents.map(({ id }) => id).sort());
    expect(await db.recurringMade.get(january)).toMatchObject({ state: 'sent', why: '', isGoing: 0 });
    // The next date asks who belongs to it then.
    await act(db, keepGroup, { id: 'berths', name: 'Berths', customerIds: ['clewbay'], rule: null }, '2026-02-02');
    await open(db, '2026-03-01', send);
    expect(await issuedOn(db)).toEqual([...MEMBERS.map(() => '2026-01-31'), '2026-02-28']);
    expect((await madeOfRecurring(db, 'pattern', 5)).map(({ isRun }) => isRun)).toEqual([true, true]);
    // What a run says is no draft of its own.
    expect(await draftsFound(db, '', 10)).toEqual([]);
    await expectSoundBook(db);
  });

  test('who needs a look waits in the run, until the person has gone on with the drafts', async () => {
    const db = await groupBook();
    await act(db, fileReturn, { registrationId: 'ie-vat', start: '2026-01-01', note: '' }, '2026-03-05');
    await open(db, '2026-03-05');
    const [first, second] = await waitingRecurring(db, 10);
    expect([first?.isRun, first?.made.why]).toEqual([true, '3 customers need a look']);
    expect(second?.made.date).toBe('2026-02-28');
    const rows = await db.runRows
      .where('[runId+state]')
      .equals([first?.made.documentId ?? '', 'waits'])
      .toArray();
    expect(rows.map(({ why }) => why)).toEqual(rows.map(() => 'Its tax period is filed, until 28 Feb 2026.'));
    for (const { documentId } of rows) await act(db, issueInvoice, { draftId: documentId }, '2026-03-05');
    expect((await waitingRecurring(db, 10)).map(({ made }) => made.date)).toEqual(['2026-02-28']);
    await expectSoundBook(db);
  });

  test('where nobody belongs to it, or it was deleted, the date waits and says so', async () => {
    const db = await groupBook({}, []);
    await open(db, '2026-02-01');
    expect(await db.recurringMade.get(january)).toMatchObject({ state: 'waits', why: 'nobody belongs to its group' });
    expect(await waitingRecurring(db, 10)).toHaveLength(1);
    await act(db, dropGroup, { id: 'berths' }, '2026-02-02');
    await open(db, '2026-03-01');
    expect((await db.recurringMade.toArray()).map(({ why }) => why)).toEqual([
      'nobody belongs to its group',
      'nobody belongs to its group',
    ]);
  });
});

test('never twice and none missed, in any order of days away, in two tabs, cut wherever it may be', async () => {
  const days = fc.array(fc.integer({ min: 1, max: 45 }), { minLength: 1, maxLength: 6 });
  const rhythm = fc.constantFrom(
    { unit: 'month' as const, every: 1, lastDay: false },
    { unit: 'week' as const, every: 2, lastDay: false },
  );
  await fc.assert(
    fc.asyncProperty(days, rhythm, fc.boolean(), fc.boolean(), async (away, own, twoTabs, cut) => {
      const db = await recurringBook({ rhythm: own, does: 'send' });
      const sent: string[] = [];
      let cuts = cut ? 2 : 0;
      const send: SendDocument = async (id) => {
        if (cuts > 0) {
          cuts -= 1;
          throw new Error('the page was closed');
        }
        sent.push(id);
        return '';
      };
      let today = isoDate('2026-01-31');
      for (const days of away) {
        today = addDays(today, days);
        const go = () => open(db, today, send).catch(() => undefined);
        await (twoTabs ? Promise.all([go(), go()]) : go());
      }
      for (let i = 0; i < 3; i++) await open(db, today, send).catch(() => undefined);
      const made = (await db.recurringMade.toArray()).map(({ date }) => date).sort();
      const due = [];
      for (let n = 0; ; n++) {
        const date = own.unit === 'week' ? addDays(isoDate('2026-01-31'), 14 * n) : dateBy(n);
        if (date > today) break;
        due.push(date);
      }
      expect(made).toEqual(due);
      expect((await issuedOn(db)).sort()).toEqual(due);
      expect(new Set(sent).size).toBe(due.length);
      await db.delete();
    }),
    { numRuns: 8 },
  );
});

const MONTHS = [
  '2026-01-31',
  '2026-02-28',
  '2026-03-31',
  '2026-04-30',
  '2026-05-31',
  '2026-06-30',
  '2026-07-31',
  '2026-08-31',
  '2026-09-30',
  '2026-10-31',
  '2026-11-30',
];
const dateBy = (n: number) => isoDate(MONTHS[n] ?? '2999-12-31');
