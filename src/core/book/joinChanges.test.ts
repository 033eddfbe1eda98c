import type { Changes } from './changes';
import { joinChanges } from './joinChanges';

/* Rows as far as joining looks at them. */
const row = (id: string, over: object = {}) => ({ id, ...over }) as never;
const note = (subject: string) => ({ subject });

describe('the changes of the parts of an action', () => {
  test('stand side by side, in their order, each with its event', () => {
    const first: Changes = { add: { journal: [row('e1')] }, put: { series: [row('invoice')] }, audit: note('INV-1') };
    const second: Changes = {
      add: { journal: [row('e2')], receipts: [row('r1')] },
      put: { series: [row('receipt')] },
      remove: { drafts: ['d1'] },
      audit: note('REC-1'),
    };
    expect(joinChanges({ changes: first }, { changes: second, action: 'record receipt' })).toEqual({
      add: { journal: [{ id: 'e1' }, { id: 'e2' }], receipts: [{ id: 'r1' }] },
      put: { series: [{ id: 'invoice' }, { id: 'receipt' }] },
      remove: { drafts: ['d1'] },
      audit: [{ subject: 'INV-1' }, { action: 'record receipt', subject: 'REC-1' }],
    });
  });

  test('a row that a later part was decided on is written as that one says, and a new one stays new', () => {
    const document = row('doc', { open: 5n });
    const issued: Changes = { add: { documents: [document] }, audit: null };
    const paid: Changes = { put: { documents: [row('doc', { open: 0n })] }, audit: null };
    expect(joinChanges({ changes: issued }, { changes: paid, on: [document] })).toEqual({
      add: { documents: [{ id: 'doc', open: 0n }] },
      put: {},
      remove: {},
      audit: null,
    });
  });

  test.each<[string, Changes, Changes]>([
    [
      'put twice',
      { put: { accounts: [{ code: '1' } as never] }, audit: null },
      { put: { accounts: [{ code: '1' } as never] }, audit: null },
    ],
    ['added twice', { add: { drafts: [row('a')] }, audit: null }, { add: { drafts: [row('a')] }, audit: null }],
    [
      'written and taken away',
      { put: { drafts: [row('a')] }, audit: null },
      { remove: { drafts: ['a'] }, audit: null },
    ],
    [
      'taken away and written',
      { remove: { drafts: ['a'] }, audit: null },
      { put: { drafts: [row('a')] }, audit: null },
    ],
  ])('a row that is %s by parts that do not know each other is a fault', (_, a, b) => {
    expect(() => joinChanges({ changes: a }, { changes: b })).toThrow(RangeError);
  });

  test('a part that was decided on an older row than the one written last is a fault', () => {
    const [one, two] = [row('a'), row('a', { v: 2 })];
    const parts = [one, two].map((next): Changes => ({ put: { drafts: [next] }, audit: null }));
    const third: Changes = { put: { drafts: [row('a', { v: 3 })] }, audit: null };
    const [first, second] = parts as [Changes, Changes];
    expect(() =>
      joinChanges({ changes: first }, { changes: second, on: [one] }, { changes: third, on: [one] }),
    ).toThrow('two parts of an action write drafts a');
  });
});
