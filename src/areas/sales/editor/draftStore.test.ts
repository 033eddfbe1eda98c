import { draftOf, lineOf } from 'tests/book';
import { isBlank } from '@/core/documents/draft';
import { createDraftStore } from './draftStore';

const defaults = { account: '4100', taxCodeOf: () => 'IE-S' };
const [a, b, c] = ['a', 'b', 'c'].map((id) => lineOf({ id, description: id }));

function storeWith(lines = [a, b, c]) {
  return createDraftStore(draftOf({ lines: lines.filter((line) => line !== undefined) }), defaults);
}
const ids = (store: ReturnType<typeof storeWith>) =>
  store
    .getState()
    .draft.lines.filter((line) => !isBlank(line))
    .map((line) => line.id);

describe('the editing state of a draft', () => {
  test('always has a blank line at the end, with the default account and code', () => {
    const store = storeWith([]);
    expect(store.getState().draft.lines).toEqual([
      expect.objectContaining({ description: '', account: '4100', taxCode: 'IE-S' }),
    ]);
    const blank = store.getState().draft.lines[0];
    store.changeLine(blank?.id ?? '', { description: 'Survey' });
    expect(store.getState().draft.lines).toHaveLength(2);
    expect(isBlank(store.getState().draft.lines[1] as never)).toBe(true);
  });
  test('begins clean and is dirty after a change', () => {
    const store = storeWith();
    expect(store.getState().dirty).toBe(false);
    store.change({ note: 'x' });
    expect(store.getState().dirty).toBe(true);
  });
  test('moves lines but never past the blank one or the first', () => {
    const store = storeWith();
    store.moveLine('c', -1);
    expect(ids(store)).toEqual(['a', 'c', 'b']);
    store.moveLine('a', -1);
    store.moveLine('b', 1);
    expect(ids(store)).toEqual(['a', 'c', 'b']);
    store.moveLine('a', 1);
    expect(ids(store)).toEqual(['c', 'a', 'b']);
  });
  test('takes lines out', () => {
    const store = storeWith();
    store.removeLine('b');
    expect(ids(store)).toEqual(['a', 'c']);
  });
  test('touches only the line that changed, so that the others need not be drawn again', () => {
    const store = storeWith();
    const before = store.getState().draft.lines;
    store.changeLine('b', { price: '5' });
    const after = store.getState().draft.lines;
    expect([after[0] === before[0], after[1] === before[1], after[2] === before[2]]).toEqual([true, false, true]);
  });
  test('a save keeps what was typed meanwhile and leaves it to be kept', () => {
    const store = storeWith();
    store.change({ note: 'one' });
    const sent = store.getState().draft;
    store.change({ note: 'two' });
    store.kept(sent, { ...sent, revision: 1, savedAt: 'now', keys: ['k'] });
    expect(store.getState()).toMatchObject({ dirty: true, draft: { note: 'two', revision: 1, savedAt: 'now' } });
    const all = store.getState().draft;
    store.kept(all, { ...all, revision: 2 });
    expect(store.getState()).toMatchObject({ dirty: false, draft: { note: 'two', revision: 2 } });
  });
  test('rates are held from a save on, unless new ones were asked for meanwhile', () => {
    const store = storeWith();
    const held = { taxPoint: '2026-01-15', customerId: '', taxes: [] };
    const sent = store.getState().draft;
    store.kept(sent, { ...sent, held });
    expect(store.getState().draft.held).toBe(held);
    const again = store.getState().draft;
    store.change({ held: null });
    store.kept(again, { ...again, held });
    expect(store.getState().draft.held).toBeNull();
  });
  test('problems stay while taxes are decided', () => {
    const store = storeWith();
    store.setProblems([{ code: 'stale', path: '' }]);
    store.decide({ ...store.getState().draft, registrationId: 'other' });
    expect([store.getState().problems.length, store.getState().draft.registrationId]).toEqual([1, 'other']);
  });
  test('problems go away with the next change', () => {
    const store = storeWith();
    store.setProblems([{ code: 'stale', path: '' }]);
    store.change({ note: 'x' });
    expect(store.getState().problems).toEqual([]);
  });
});
