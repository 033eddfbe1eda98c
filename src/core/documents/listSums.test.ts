import { issued, lineOf, newBook } from 'tests/book';
import { sumsByTag, sumsOf } from './listSums';

test('a list comes to the sums of its documents by currency and by tag, quotes and cancelled ones left out', async () => {
  const db = await newBook();
  // 100.00 and 10.00 at 23 % are 123.00 and 12.30.
  await issued(db, { issueDate: '2026-01-10', lines: [lineOf({ price: '100' })], tags: ['pier'] });
  await issued(db, { issueDate: '2026-01-11', lines: [lineOf({ price: '10' })], tags: ['pier', 'radar'] });
  const [first, second] = await db.documents.orderBy('[issueDate+number]').toArray();
  if (first === undefined || second === undefined) throw new Error('two documents were issued');
  const dollars = { ...second, content: { ...second.content, currency: 'USD' as never }, tags: [] };
  const quote = { ...first, kind: 'quote' as const };
  const cancelled = { ...first, cancelled: { on: first.issueDate, reason: 'x', entryId: 'e' } };
  const credit = {
    ...second,
    kind: 'credit-note' as const,
    content: { ...second.content, kind: 'credit-note' as const },
    open: 0n as never,
    tags: [],
  };
  expect(sumsOf([first, second, dollars, quote, cancelled, credit])).toEqual([
    { currency: 'EUR', count: 3, total: 12300n, open: 13530n },
    { currency: 'USD', count: 1, total: 1230n, open: 1230n },
  ]);
  expect(sumsByTag([first, second, dollars]).map(({ tag, sums }) => [tag, sums.map(({ total }) => total)])).toEqual([
    ['pier', [13530n]],
    ['radar', [1230n]],
  ]);
});
