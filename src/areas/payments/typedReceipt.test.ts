import { issued, newBook } from 'tests/book';
import type { IssuedDocument } from '@/core/documents/issued';
import { currency } from '@/core/kernel/currency';
import { isoDate } from '@/core/kernel/date';
import type { Debt } from '@/core/settlement/proposal';
import { receiptChecks } from './receiptChecks';
import { EMPTY_HEAD, EMPTY_ROW, emptyPart, readReceipt, restOf, type TypedPart, type TypedRow } from './typedReceipt';

const EUR = currency('EUR');
let document: IssuedDocument;
beforeAll(async () => {
  document = await issued(await newBook());
});

const debts = (): readonly Debt[] => [{ document, withheld: [] }];
const row = (over: Partial<TypedRow>): Readonly<Record<string, TypedRow>> => ({
  [document.id]: { ...EMPTY_ROW, ...over },
});
const part = (over: Partial<TypedPart>): TypedPart => ({ ...emptyPart('1'), ...over });

const read = (parts: readonly TypedPart[], rows: Readonly<Record<string, TypedRow>>) =>
  readReceipt({ ...EMPTY_HEAD, differenceTo: '7910' }, parts, rows, {
    customerId: 'c',
    day: '2026-02-01',
    currency: EUR,
    home: EUR,
    debts: debts(),
  });

test('what is typed is read cell by cell; empty cells count nothing', () => {
  const { input, unread, money, settled, left } = read(
    [part({ amount: '120', charge: '1.50' })],
    row({ money: '100.00', withheld: { W5: '5', W2: '' }, discount: '2.46', difference: '0.01' }),
  );
  expect(unread).toEqual([]);
  expect([money, settled, left]).toEqual([12000n, 10000n, 2000n]);
  expect(input.parts).toMatchObject([{ method: 'bank', amount: 12000n, charge: 150n }]);
  expect(input.to).toEqual([
    {
      documentId: document.id,
      number: document.number,
      money: 10000n,
      withheld: [{ typeId: 'W5', amount: 500n }],
      discount: 246n,
      difference: { amount: 1n, account: '7910' },
    },
  ]);
});
test('without an amount, what settles documents is what came; with another part it is asked for', () => {
  expect(read([part({})], row({ money: '61.50' }))).toMatchObject({ money: 6150n, left: 0n, unread: [] });
  const two = read([part({ amount: '60' }), part({ id: '2' })], row({ money: '61.50' }));
  expect(two.unread.map(({ path }) => path)).toEqual(['parts[1].amount']);
});
test('what can’t be read is named at its cell', () => {
  const { unread } = read([part({ amount: 'much' })], row({ money: '1.005', withheld: { W5: 'x' }, discount: '?' }));
  expect(unread.map(({ path }) => path)).toEqual([
    'to[0].withheld[0].amount',
    'to[0].money',
    'to[0].discount',
    'parts[0].amount',
  ]);
});
test('tax withheld whole comes without money', () => {
  expect(read([part({})], row({ withheld: { W5: '123.00' } })).input.parts).toEqual([]);
});
test('what would stay open is told while it is typed', () => {
  const [debt] = debts() as [Debt];
  expect(restOf(debt, { ...EMPTY_ROW, money: '100', discount: '3' }, EUR)).toBe(2000n);
  expect(restOf(debt, { ...EMPTY_ROW, money: '200' }, EUR)).toBe(-7700n);
  expect(restOf(debt, { ...EMPTY_ROW, money: 'x' }, EUR)).toBeNull();
});
test('checks name a late discount, more withheld than expected, and a cheque of a later day', () => {
  const receipt = read([part({ amount: '120' })], row({ money: '100', withheld: { W5: '5' }, discount: '2' }));
  const [today, value] = [isoDate('2026-02-01'), isoDate('2026-03-01')];
  const filed = { id: document.content.registrationId, filedUntil: '2026-02-28' as const };
  expect(receiptChecks(receipt, debts(), today, value, [filed as never])).toEqual([
    'Post-dated: it counts from 1 Mar 2026, with its entries and its tax.',
    `${document.number}: no discount was offered.`,
    `${document.number}: more is withheld than expected.`,
  ]);
  expect(receiptChecks(read([part({})], row({ money: '1' })), debts(), today, today, [])).toEqual([]);
});
