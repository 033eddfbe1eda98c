import { act, draftOf, issued, lineOf, momentOn, newBook, refusalCodes } from 'tests/book';
import type { EndableTable } from '@/core/decisions/setup/endRecord';
import { DEMO_ITEMS } from '@/demo/setup';
import { perform } from './perform';
import { keepDraft } from './sales/actions/drafts';
import { allCustomers, allItems, findCustomers, findItems } from './sales/queries/documents';
import type { BookDb } from './schema';
import { endRecord, setArchived } from './setup/actions/endRecord';
import { usedBy } from './setup/queries/uses';

let db: BookDb;
beforeEach(async () => {
  db = await newBook();
});

const JANUARY = '2026-01-15';
const refusedWith = async (input: { table: EndableTable; id: string }) =>
  refusalCodes(await perform(db, endRecord, input, momentOn(JANUARY)));
const GAUGE = DEMO_ITEMS.find(({ id }) => id === 'gauge');

describe('a record that is deleted', () => {
  test('goes, with an event on the audit trail, while nothing uses it', async () => {
    await act(db, endRecord, { table: 'customers', id: 'clewbay' }, JANUARY);
    expect(await db.customers.get('clewbay')).toBeUndefined();
    expect((await db.audit.orderBy(':id').last())?.action).toBe('delete record');
    expect(await refusedWith({ table: 'customers', id: 'clewbay' })).toEqual(['not-found']);
  });
  test('stays while a document, a draft or another record names it', async () => {
    await issued(db, { issueDate: JANUARY, customerId: 'clewbay', lines: [lineOf({ itemId: 'gauge' })] });
    expect(await usedBy(db, 'customers', 'clewbay')).toBe('INV-2026-0001');
    expect(await usedBy(db, 'items', 'gauge')).toBe('INV-2026-0001');
    for (const [table, id] of [
      ['customers', 'clewbay'],
      ['items', 'gauge'],
    ] as const)
      expect(await refusedWith({ table, id })).toEqual(['used']);
    await act(db, keepDraft, draftOf({ customerId: 'counter' }), JANUARY);
    expect(await usedBy(db, 'customers', 'counter')).not.toBe('');
  });
});

test('an archived record is not offered any more, and is found among all', async () => {
  await act(db, setArchived, { table: 'customers', id: 'clewbay', archived: true }, JANUARY);
  await act(db, setArchived, { table: 'items', id: 'gauge', archived: true }, JANUARY);
  const ids = (rows: readonly { id: string }[]) => rows.map(({ id }) => id);
  for (const query of ['', 'clew']) {
    expect(ids(await findCustomers(db, query, 50))).not.toContain('clewbay');
    expect(ids(await allCustomers(db, query, 50))).toContain('clewbay');
  }
  for (const query of ['', GAUGE?.name ?? '']) {
    expect(ids(await findItems(db, query, 50))).not.toContain('gauge');
    expect(ids(await allItems(db, query, 50))).toContain('gauge');
  }
  await act(db, setArchived, { table: 'customers', id: 'clewbay', archived: false }, JANUARY);
  expect(ids(await findCustomers(db, 'clew', 50))).toContain('clewbay');
});
