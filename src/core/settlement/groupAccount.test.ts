import fc from 'fast-check';
import { issued, lineOf, newBook } from 'tests/book';
import type { IssuedDocument } from '@/core/documents/issued';
import { currency } from '@/core/kernel/currency';
import { addDays, type IsoDate, isoDate } from '@/core/kernel/date';
import { type Minor, minor, total } from '@/core/kernel/money';
import { type AccountRows, accountMoves, customerMoves, openItemsOn, statementOf } from './account';
import type { Allocation } from './allocation';
import type { Receipt } from './receipt';

/* Customers of one group pay for each other: the account of each says what is open of it, and so does that of all together. */

const EUR = currency('EUR');
const FIRST = isoDate('2026-01-01');
const GROUP = ['parent', 'east', 'west'] as const;
type Member = (typeof GROUP)[number];

/** An invoice of 123.00. */
let plain: IssuedDocument;
beforeAll(async () => {
  plain = await issued(await newBook(), { lines: [lineOf({ price: '100.00' })] });
});
const OWED = 123_00;

const invoice = (id: string, customerId: Member, issueDate: IsoDate): IssuedDocument => ({
  ...plain,
  id,
  customerId,
  number: id,
  issueDate,
  dueDate: issueDate,
  content: { ...plain.content, number: id, dueDate: issueDate },
});

const receipt = (id: string, customerId: Member, date: IsoDate, amount: number): Receipt =>
  ({
    id,
    number: id,
    customerId,
    date,
    valueDate: date,
    reference: '',
    amount: minor(BigInt(amount)),
    currency: EUR,
    dishonoured: null,
  }) as Receipt;

const allocation = (
  creditId: string,
  debtId: string,
  date: IsoDate,
  amount: number,
  undoneOn: IsoDate | null,
): Allocation =>
  ({
    id: `${creditId}-${debtId}`,
    creditKind: 'receipt',
    creditId,
    creditNumber: creditId,
    debtKind: 'document',
    debtId,
    debtNumber: debtId,
    date,
    currency: EUR,
    amount: minor(BigInt(amount)),
    undone: undoneOn === null ? null : { on: undoneOn, at: '', turn: 1, creditTurn: 1, entryIds: [] },
  }) as Allocation;

/** What stands behind the accounts of some of the group: their own rows, and what was allocated in all of it. */
const rowsOf = (book: AccountRows, members: readonly string[]): AccountRows => ({
  ...book,
  documents: book.documents.filter(({ customerId }) => members.includes(customerId)),
  receipts: book.receipts.filter(({ customerId }) => members.includes(customerId)),
});

const movesOf = (book: AccountRows, members: readonly string[]) =>
  accountMoves(rowsOf(book, members), EUR).map(({ date, event, number, amount }) => [date, event, number, amount]);

const paidByParent = (undoneOn: IsoDate | null): AccountRows => ({
  documents: [invoice('I-1', 'east', isoDate('2026-01-05'))],
  receipts: [receipt('R-1', 'parent', isoDate('2026-02-01'), 200_00)],
  refunds: [],
  allocations: [allocation('R-1', 'I-1', isoDate('2026-02-02'), OWED, undoneOn)],
});

test('what a parent paid for a member leaves its account and reaches that of the member', () => {
  const book = paidByParent(null);
  expect(movesOf(book, ['east'])).toEqual([
    ['2026-01-05', 'invoice', 'I-1', 123_00n],
    ['2026-02-02', 'settled-by', 'R-1', -123_00n],
  ]);
  // 200.00 came in, 123.00 of it went to the member: 77.00 are held.
  expect(movesOf(book, ['parent'])).toEqual([
    ['2026-02-01', 'receipt', 'R-1', -200_00n],
    ['2026-02-02', 'used-for', 'I-1', 123_00n],
  ]);
});

test('on the account of both together it is no move, and on that of a third none either', () => {
  const book = paidByParent(null);
  expect(movesOf(book, ['parent', 'east']).map(([, event]) => event)).toEqual(['invoice', 'receipt']);
  expect(movesOf(book, ['west'])).toEqual([]);
});

test('taken back it goes the other way, on the day it was', () => {
  const book = paidByParent(isoDate('2026-03-09'));
  expect(movesOf(book, ['east']).at(-1)).toEqual(['2026-03-09', 'settled-by-undone', 'R-1', 123_00n]);
  expect(movesOf(book, ['parent']).at(-1)).toEqual(['2026-03-09', 'used-for-undone', 'I-1', -123_00n]);
});

test('each move says what is behind it: the receipt that paid, the document it was used for', () => {
  const moves = accountMoves(rowsOf(paidByParent(null), ['east']), EUR);
  expect(moves.map(({ id, kind }) => [id, kind])).toEqual([
    ['I-1', 'document'],
    ['R-1', 'receipt'],
  ]);
  const [, used] = accountMoves(rowsOf(paidByParent(null), ['parent']), EUR);
  expect([used?.id, used?.kind]).toEqual(['I-1', 'document']);
});

/** Invoices on the first days, receipts on the next, and then what was made of them and taken back. */
const bookArb = fc
  .record({
    debts: fc.array(fc.constantFrom(...GROUP), { minLength: 1, maxLength: 4 }),
    credits: fc.array(fc.tuple(fc.constantFrom(...GROUP), fc.integer({ min: 1, max: 300_00 })), { maxLength: 4 }),
    uses: fc.array(
      fc.record({
        debt: fc.nat({ max: 3 }),
        credit: fc.nat({ max: 3 }),
        amount: fc.integer({ min: 1, max: OWED }),
        after: fc.nat({ max: 20 }),
        undoneAfter: fc.option(fc.nat({ max: 20 })),
      }),
      { maxLength: 6 },
    ),
  })
  .map(({ debts, credits, uses }): AccountRows => {
    const made = new Map<string, Allocation>();
    for (const { debt, credit, amount, after, undoneAfter } of uses) {
      if (debt >= debts.length || credit >= credits.length) continue;
      const on = addDays(FIRST, 20 + after);
      const one = allocation(
        `R-${credit}`,
        `I-${debt}`,
        on,
        amount,
        undoneAfter === null ? null : addDays(on, undoneAfter),
      );
      made.set(one.id, one);
    }
    return {
      documents: debts.map((member, i) => invoice(`I-${i}`, member, addDays(FIRST, i))),
      receipts: credits.map(([member, amount], i) => receipt(`R-${i}`, member, addDays(FIRST, 10 + i), amount)),
      refunds: [],
      allocations: [...made.values()],
    };
  });

test('on any day an account stands at what is open of it, whoever of the group paid', () => {
  const membersArb = fc.subarray([...GROUP], { minLength: 1 });
  fc.assert(
    fc.property(bookArb, membersArb, fc.nat({ max: 70 }), (book, members, days) => {
      const on = addDays(FIRST, days);
      const rows = rowsOf(book, members);
      const { closing } = statementOf(accountMoves(rows, EUR), '', on);
      expect(closing).toBe(total(openItemsOn(rows, on).map(({ open }) => open)));
    }),
  );
});

test('the accounts of all of them add up to that of the group', () => {
  fc.assert(
    fc.property(bookArb, (book) => {
      const balance = (members: readonly string[]): Minor =>
        total(accountMoves(rowsOf(book, members), EUR).map(({ amount }) => amount));
      expect(total(GROUP.map((one) => balance([one])))).toBe(balance(GROUP));
      const owners = new Map([...book.documents, ...book.receipts].map(({ id, customerId }) => [id, customerId]));
      const ledger = customerMoves(book, (id) => owners.get(id));
      for (const one of GROUP)
        expect(total(ledger.flatMap(({ customerId, amount }) => (customerId === one ? [amount] : [])))).toBe(
          balance([one]),
        );
    }),
  );
});
