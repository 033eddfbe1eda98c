import { eventWord, fieldWords } from './eventWords';

test.each([
  ['lines[0].unitPrice', 'lines 1, unit price'],
  ['openHome', 'open home'],
  ['accounts.notYetDue', 'accounts, not yet due'],
  ['reason', 'reason'],
])('%s is told as “%s”', (path, words) => expect(fieldWords(path)).toBe(words));

test('an event is told in words of the trade, or by its own name', () => {
  expect([eventWord('record receipt'), eventWord('keep tax')]).toEqual(['money received', 'keep tax']);
});
