import fc from 'fast-check';
import { act, draftOf, lineOf, momentOn, newBook } from 'tests/book';
import { expectSoundBook } from 'tests/soundBook';
import type { RunDoes } from '@/core/decisions/sales/run';
import { takeCustomer } from '@/core/documents/determineLine';
import { isInGroup, pastedFigures } from '@/core/documents/run';
import { isoDate } from '@/core/kernel/date';
import { loadSetting, present } from './load';
import { perform } from './perform';
import { keepDraft } from './sales/actions/drafts';
import { issueInvoice } from './sales/actions/issueInvoice';
import { addToRun, changeRunRows, keepGroup, makeRunDocument, runOfDraft, undoRunDrafts } from './sales/actions/runs';
import { draftsFound } from './sales/queries/documents';
import { membersOf, numbersOfRun, reviewRun, rowsOfRun } from './sales/queries/runs';
import type { BookDb } from './schema';
import { changeCustomer } from './setup/actions/setup';

const DAY = '2026-01-20';
const CUSTOMERS = ['ballyvaughan', 'clewbay', 'inishmaan'];

async function runBook(lines = [lineOf({ description: 'Berth', price: '100' })], customers = CUSTOMERS) {
  const db = await newBook();
  const draft = await act(db, keepDraft, draftOf({ id: 'run', issueDate: DAY, lines, orderNumber: 'ALL' }), DAY);
  const run = await act(db, runOfDraft, { draftId: draft.id, name: 'Berths' }, DAY);
  await act(db, addToRun, { runId: run.id, customerIds: customers }, DAY);
  return { db, run };
}

async function go(db: BookDb, does: RunDoes): Promise<void> {
  for (const { id } of await rowsOfRun(db, 'run')) await act(db, makeRunDocument, { rowId: id, does }, DAY);
}

const statesOf = async (db: BookDb) => (await rowsOfRun(db, 'run')).map(({ state }) => state);

describe('a run', () => {
  test('has each customer once, issues in numbers without gaps, and does nothing twice', async () => {
    const { db, run } = await runBook();
    await act(db, addToRun, { runId: run.id, customerIds: CUSTOMERS }, DAY);
    expect(await rowsOfRun(db, 'run')).toHaveLength(3);
    await go(db, 'issue-all');
    await go(db, 'issue-all');
    const documents = (await db.documents.toArray()).sort((a, b) => a.position - b.position);
    expect(documents.map(({ number }) => number)).toEqual(['INV-2026-0001', 'INV-2026-0002', 'INV-2026-0003']);
    const rows = await rowsOfRun(db, 'run');
    expect([...(await numbersOfRun(db, rows)).values()].sort()).toEqual(documents.map(({ number }) => number));
    expect(documents.map(({ customerId }) => customerId)).toEqual(rows.map(({ customerId }) => customerId));
    // What it says is no draft of its own.
    expect(await draftsFound(db, '', 10)).toEqual([]);
    await expectSoundBook(db);
  });

  test('keeps what should be looked at as a draft that waits, and takes drafts back', async () => {
    const { db } = await runBook();
    const clewbay = present(await db.customers.get('clewbay'), 'the customer');
    const { keys: _, ...record } = clewbay;
    await act(
      db,
      changeCustomer,
      { ...record, address: { ...record.address, street: '', city: '' }, prospect: true },
      DAY,
    );
    const reviews = await reviewRun(db, await rowsOfRun(db, 'run'), isoDate(DAY));
    expect(reviews.map(({ finding }) => finding !== '')).toEqual([false, true, false]);
    await go(db, 'issue-sound');
    expect(await statesOf(db)).toEqual(['issued', 'waits', 'issued']);
    const [, waiting] = await rowsOfRun(db, 'run');
    expect(waiting?.why).toBe(reviews[1]?.finding);
    expect(await act(db, undoRunDrafts, { runId: 'run' }, DAY)).toBe(1);
    expect(await statesOf(db)).toEqual(['issued', 'planned', 'issued']);
    expect((await perform(db, undoRunDrafts, { runId: 'run' }, momentOn(DAY))).ok).toBe(false);
    await go(db, 'drafts');
    expect(await draftsFound(db, '', 10)).toHaveLength(1);
    await expectSoundBook(db);
  });

  test('is what would have been typed one by one, cent by cent and number by number', async () => {
    const price = fc.integer({ min: 1, max: 99_999 }).map((n) => (n / 100).toFixed(2));
    const quantity = fc.constantFrom('', '2', '0.75', '13');
    const own = fc.record({ quantity, price: fc.option(price, { nil: '' }) });
    await fc.assert(
      fc.asyncProperty(price, fc.tuple(own, own, own), async (base, figures) => {
        const lines = [
          lineOf({ id: 'a', description: 'Berth', price: base }),
          lineOf({ id: 'b', price: '3.33', taxCode: 'IE-R' }),
        ];
        const { db } = await runBook(lines);
        const rows = await rowsOfRun(db, 'run');
        await act(db, changeRunRows, { rows: rows.map((row, i) => ({ ...row, ...figures[i] })) }, DAY);
        await go(db, 'issue-all');
        const typed = await newBook();
        for (const [i, { customerId }] of rows.entries()) {
          const customer = present(await typed.customers.get(customerId), 'the customer');
          const { quantity: q = '', price: p = '' } = figures[i] ?? {};
          const [first, ...rest] = lines;
          if (first === undefined) return;
          const written = draftOf({
            id: `typed-${i}`,
            issueDate: DAY,
            customerId,
            orderNumber: 'ALL',
            lines: [{ ...first, quantity: q || first.quantity, price: p || first.price }, ...rest],
          });
          const setting = await loadSetting(typed, written, customer);
          const kept = await act(typed, keepDraft, takeCustomer(written, customer, setting), DAY);
          await act(typed, issueInvoice, { draftId: kept.id }, DAY);
        }
        const facts = async (book: BookDb) =>
          (await book.documents.toArray())
            .sort((a, b) => a.position - b.position)
            .map(({ number, customerId, dueDate, figures: f, content }) => [
              number,
              customerId,
              dueDate,
              f.totals,
              content.taxes.map(({ code }) => code),
            ]);
        expect(await facts(db)).toEqual(await facts(typed));
        await Promise.all([db.delete(), typed.delete()]);
      }),
      { numRuns: 8 },
    );
  });
});

test('figures are pasted by name or id; who is not in the run is told', async () => {
  const { db } = await runBook();
  const rows = await rowsOfRun(db, 'run');
  const [first] = rows;
  const { changed, unknown } = pastedFigures(rows, [
    [` ${first?.customerName.toUpperCase()} `, '3', '12.50'],
    ['clewbay', '2'],
    ['Nobody', '1', '1'],
  ]);
  expect(changed.map(({ customerId, quantity, price }) => [customerId, quantity, price])).toEqual([
    [first?.customerId, '3', '12.50'],
    ['clewbay', '2', ''],
  ]);
  expect(unknown).toEqual(['Nobody']);
});

test('a group holds who was chosen and who its rule finds, as they are now', async () => {
  const { db } = await runBook();
  const rule = { country: 'IE', kind: 'government' as const, text: '' };
  const group = await act(db, keepGroup, { id: 'g', name: 'Harbours', customerIds: ['clewbay'], rule }, DAY);
  const members = await membersOf(db, group);
  expect(
    members.every((one) => one.id === 'clewbay' || (one.kind === 'government' && one.address.country === 'IE')),
  ).toBe(true);
  expect(members.map(({ id }) => id)).toContain('clewbay');
  const clewbay = present(await db.customers.get('clewbay'), 'the customer');
  expect(isInGroup(group, { ...clewbay, archived: true })).toBe(false);
  expect(isInGroup({ ...group, customerIds: [], rule: { country: '', kind: '', text: ' ' } }, clewbay)).toBe(false);
  const wrong = { ...group, name: '', rule: { ...rule, country: 'XX' } };
  expect((await perform(db, keepGroup, wrong, momentOn(DAY))).ok).toBe(false);
});
