import Dexie from 'dexie';
import { act, draftOf, momentOn, newBook, refusalCodes, wholeBook } from 'tests/book';
import { perform, storageRefusal } from './perform';
import { keepDraft } from './sales/actions/drafts';
import { changeItem } from './setup/actions/setup';

describe('errors of the browser', () => {
  test.each<[string, unknown, string | undefined]>([
    ['a full disk', new DOMException('full', 'QuotaExceededError'), 'storage-full'],
    [
      'a full disk inside an aborted transaction',
      Object.assign(new Error('aborted'), { name: 'AbortError', inner: { name: 'QuotaExceededError' } }),
      'storage-full',
    ],
    ['a closed database', new Dexie.DatabaseClosedError('closed'), 'storage-failed'],
    ['a fault of our own', new RangeError('wrong'), undefined],
    ['nothing', null, undefined],
  ])('%s', (_, error, code) => expect(storageRefusal(error)?.code).toBe(code));
});

describe('a disk that is full in the middle of an action', () => {
  test('is a refusal that says so, and nothing is written', async () => {
    const db = await newBook();
    const before = await wholeBook(db);
    const full = () => {
      throw new DOMException('full', 'QuotaExceededError');
    };
    db.audit.hook('creating', full);
    const item = await db.items.get('gauge');
    if (item === undefined) throw new Error('no item');
    const { keys: _, ...plain } = item;
    const result = await perform(db, changeItem, { ...plain, name: 'Renamed' }, momentOn('2026-01-10'));
    db.audit.hook('creating').unsubscribe(full);
    expect(refusalCodes(result)).toEqual(['storage-full']);
    expect(await wholeBook(db)).toEqual(before);
    await act(db, changeItem, { ...plain, name: 'Renamed' }, '2026-01-10');
    expect((await db.items.get('gauge'))?.name).toBe('Renamed');
  });
});

test('a closed book is a refusal, not a fault', async () => {
  const db = await newBook();
  const item = await db.items.get('gauge');
  db.close({ disableAutoOpen: true });
  if (item === undefined) throw new Error('no item');
  const { keys: _, ...plain } = item;
  expect(refusalCodes(await perform(db, changeItem, plain, momentOn('2026-01-10')))).toEqual(['storage-failed']);
});

test('a draft is kept while the ledger is written elsewhere: it locks what it reads and writes alone', async () => {
  const db = await newBook();
  const order: string[] = [];
  await db.transaction('rw', db.journal, db.journalLines, async () => {
    const kept = Dexie.ignoreTransaction(() => perform(db, keepDraft, draftOf(), momentOn('2026-01-15')));
    // The ledger stays locked until the draft is kept; an action over all tables would wait for ever.
    expect(await Dexie.waitFor(kept, 10_000)).toMatchObject({ ok: true });
    order.push('kept');
    await db.journal.count();
    order.push('ledger');
  });
  expect(order).toEqual(['kept', 'ledger']);
});
