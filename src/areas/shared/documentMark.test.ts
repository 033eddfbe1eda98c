import { day, issued, newBook } from 'tests/book';
import { type IssuedDocument, restated } from '@/core/documents/issued';
import { minor } from '@/core/kernel/money';
import { documentMark } from './documentMark';

let invoice: IssuedDocument;
beforeAll(async () => {
  invoice = await issued(await newBook(), { due: '2026-02-14' });
});

const IN_TIME = day('2026-02-14');
const AFTER = day('2026-02-15');

function settledBy(received: bigint, credited = 0n): IssuedDocument {
  return restated({
    ...invoice,
    received: minor(received),
    credited: minor(credited),
    open: minor(12300n - received - credited),
  });
}

describe('the mark of a document', () => {
  test.each<[string, bigint, bigint, typeof AFTER, string, string]>([
    ['nothing paid', 0n, 0n, IN_TIME, 'issued', 'issued'],
    ['nothing paid after the due date', 0n, 0n, AFTER, 'overdue', 'overdue'],
    ['a cent paid', 1n, 0n, IN_TIME, 'quarter', 'part-paid'],
    ['a quarter paid', 3075n, 0n, IN_TIME, 'quarter', 'part-paid'],
    ['half paid', 6150n, 0n, IN_TIME, 'half', 'part-paid'],
    ['all but a cent paid', 12299n, 0n, IN_TIME, 'most', 'part-paid'],
    ['part paid after the due date', 6150n, 0n, AFTER, 'overdue', 'overdue, part-paid'],
    ['all paid after the due date', 12300n, 0n, AFTER, 'paid', 'paid'],
    ['all credited', 0n, 12300n, AFTER, 'cancelled', 'credited'],
    ['part paid, the rest credited', 300n, 12000n, AFTER, 'paid', 'paid'],
  ])('%s', (_, received, credited, on, kind, word) => {
    expect(documentMark(settledBy(received, credited), on)).toEqual({ kind, word });
  });
  test('a credit note is set off, or issued while it is open, and never overdue', () => {
    const note = restated({ ...invoice, kind: 'credit-note', open: minor(0n), credited: minor(-12300n) });
    expect(documentMark(note, AFTER)).toEqual({ kind: 'paid', word: 'set off' });
    expect(documentMark(restated({ ...note, open: minor(-12300n), credited: minor(0n) }), AFTER)).toEqual({
      kind: 'issued',
      word: 'issued',
    });
  });
});
