import { draftOf, lineOf } from 'tests/book';
import { blankAdjustment, isBlank } from '@/core/documents/draft';
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
  test('brings back what was removed, last first, where it stood, and leaves what was typed since', () => {
    const store = storeWith();
    const charge = { ...blankAdjustment('f', 'charge', '4300'), amount: '12' };
    store.addAdjustment(charge);
    const [, line] = store.getState().draft.lines;
    store.removeLine('b');
    store.removeAdjustment('f');
    expect([ids(store), store.getState().draft.adjustments, store.getState().justRemoved]).toEqual([
      ['a', 'c'],
      [],
      true,
    ]);
    store.changeLine('c', { price: '9' });
    expect(store.getState().justRemoved).toBe(false);
    store.bringBack();
    store.bringBack();
    const { draft, removed } = store.getState();
    expect([ids(store), draft.lines[1], draft.lines[2]?.price]).toEqual([['a', 'b', 'c'], line, '9']);
    expect([draft.adjustments, removed, store.bringBack()]).toEqual([[charge], [], null]);
  });
  test('a blank line is not worth bringing back, and a line comes before the blank one whatever is gone', () => {
    const store = storeWith();
    store.removeLine(store.getState().draft.lines[3]?.id ?? '');
    expect(store.getState().removed).toEqual([]);
    for (const id of ['c', 'a', 'b']) store.removeLine(id);
    for (let i = 0; i < 3; i++) store.bringBack();
    expect([ids(store), isBlank(store.getState().draft.lines[3] as never)]).toEqual([['a', 'b', 'c'], true]);
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
  test('what was decided for an earlier draft is left alone, so that nothing typed or kept since is taken back', () => {
    const store = storeWith();
    const before = store.getState().draft;
    store.kept(before, { ...before, revision: 1 });
    store.change({ currency: 'NOK' });
    expect(store.decide(before, { ...before, registrationId: 'other' })).toBe(false);
    expect(store.getState().draft).toMatchObject({
      currency: 'NOK',
      revision: 1,
      registrationId: before.registrationId,
    });
  });
  test('problems stay while taxes are decided', () => {
    const store = storeWith();
    store.setProblems([{ code: 'stale', path: '' }]);
    const { draft } = store.getState();
    store.decide(draft, { ...draft, registrationId: 'other' });
    expect([store.getState().problems.length, store.getState().draft.registrationId]).toEqual([1, 'other']);
  });
  test('problems go away with the next change', () => {
    const store = storeWith();
    store.setProblems([{ code: 'stale', path: '' }]);
    store.change({ note: 'x' });
    expect(store.getState().problems).toEqual([]);
  });
  test('moves a line by many places, as dragging does, and not below the blank one', () => {
    const store = storeWith();
    store.moveLine('a', 2);
    expect(ids(store)).toEqual(['b', 'c', 'a']);
    store.moveLine('b', 9);
    expect(ids(store)).toEqual(['b', 'c', 'a']);
  });
  test('copies a line below itself with an id of its own', () => {
    const store = storeWith();
    store.copyLine('b');
    const lines = store.getState().draft.lines;
    expect(lines.map((line) => line.description)).toEqual(['a', 'b', 'b', 'c', '']);
    expect(new Set(lines.map((line) => line.id)).size).toBe(5);
  });
  test('puts pasted lines in the place of a blank one, or below a written one', () => {
    const pasted = ['x', 'y'].map((description) => ({
      description,
      quantity: '2',
      unit: 'C62',
      price: '1',
      discount: '',
    }));
    const store = storeWith();
    store.insertLines('a', pasted);
    expect(store.getState().draft.lines.map((line) => line.description)).toEqual(['a', 'x', 'y', 'b', 'c', '']);
    const blank = store.getState().draft.lines.at(-1)?.id ?? '';
    store.insertLines(blank, pasted);
    const lines = store.getState().draft.lines;
    expect(lines.map((line) => line.description)).toEqual(['a', 'x', 'y', 'b', 'c', 'x', 'y', '']);
    expect(lines[5]).toMatchObject({ quantity: '2', account: '4100', taxCode: 'IE-S' });
  });
  test('keeps discounts and charges, and forgets a typed tax with its amount', () => {
    const store = storeWith();
    const adjustment = blankAdjustment('d', 'allowance', '4900');
    store.addAdjustment(adjustment);
    store.changeAdjustment('d', { amount: '5%' });
    expect(store.getState().draft.adjustments).toEqual([{ ...adjustment, amount: '5%' }]);
    store.removeAdjustment('d');
    expect(store.getState().draft.adjustments).toEqual([]);
    store.override('IE-S', 'IE-VAT', { amount: '9.99' });
    store.override('IE-S', 'IE-VAT', { reason: 'as agreed' });
    expect(store.getState().draft.overrides).toEqual([
      { tax: 'IE-S', family: 'IE-VAT', amount: '9.99', reason: 'as agreed' },
    ]);
    store.override('IE-S', 'IE-VAT', { amount: ' ' });
    expect(store.getState().draft.overrides).toEqual([]);
  });
  test('what is being looked up is waited for, also what comes of it and what fails', async () => {
    const store = storeWith();
    const order: string[] = [];
    const gate = () => {
      let open = () => {};
      const passed = new Promise<void>((resolve) => {
        open = resolve;
      });
      return { open, passed };
    };
    const [first, second] = [gate(), gate()];
    void store.during(
      first.passed.then(() => {
        order.push('first');
        void store.during(second.passed.then(() => order.push('second')));
      }),
    );
    const failing = store.during(Promise.reject(new Error('not found')));
    await expect(failing).rejects.toThrow('not found');
    const answered = store.answered().then(() => order.push('answered'));
    first.open();
    await first.passed;
    second.open();
    await answered;
    expect(order).toEqual(['first', 'second', 'answered']);
  });
});
