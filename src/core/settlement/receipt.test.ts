import fc from 'fast-check';
import { EUR, issued, newBook } from 'tests/book';
import type { IssuedDocument } from '@/core/documents/issued';
import { currency } from '@/core/kernel/currency';
import { minor } from '@/core/kernel/money';
import { moneySample, readTypedMoney } from '@/core/kernel/typedMoney';
import { allocated, allocateOldestFirst } from './receipt';

let template: IssuedDocument;
beforeAll(async () => {
  template = await issued(await newBook());
});

const open = (number: string, dueDate: string, amount: bigint): IssuedDocument => ({
  ...template,
  id: number,
  number,
  dueDate: dueDate as never,
  open: minor(amount),
});

describe('oldest first', () => {
  test('fills by due date, then by number, and leaves the rest open', () => {
    const documents = [
      open('INV-3', '2026-03-01', 500n),
      open('INV-2', '2026-02-01', 300n),
      open('INV-1', '2026-03-01', 200n),
    ];
    expect(allocateOldestFirst(documents, minor(600n))).toEqual({
      allocations: [
        { documentId: 'INV-2', number: 'INV-2', amount: 300n },
        { documentId: 'INV-1', number: 'INV-1', amount: 200n },
        { documentId: 'INV-3', number: 'INV-3', amount: 100n },
      ],
      left: 0n,
    });
  });
  test('says what is left over, and passes documents that owe nothing', () => {
    const documents = [
      open('INV-1', '2026-01-01', 0n),
      open('CN-1', '2026-01-01', -50n),
      open('INV-2', '2026-02-01', 100n),
    ];
    const { allocations, left } = allocateOldestFirst(documents, minor(130n));
    expect(allocations.map((a) => a.number)).toEqual(['INV-2']);
    expect(left).toBe(30n);
  });
  test('for any amounts: parts and rest add up, no part is above what is open', () => {
    fc.assert(
      fc.property(fc.array(fc.bigInt(0n, 10000n), { maxLength: 12 }), fc.bigInt(0n, 60000n), (amounts, sum) => {
        const documents = amounts.map((amount, i) =>
          open(`INV-${i}`, `2026-01-${String((i % 28) + 1).padStart(2, '0')}`, amount),
        );
        const { allocations, left } = allocateOldestFirst(documents, minor(sum));
        expect(allocated(allocations) + left).toBe(sum);
        for (const a of allocations) {
          expect(a.amount).toBeGreaterThan(0n);
          expect(a.amount).toBeLessThanOrEqual(documents.find((d) => d.id === a.documentId)?.open ?? 0n);
        }
      }),
    );
  });
});

describe('money as it is typed', () => {
  test.each([
    ['12.50', 1250n],
    ['1,234.5', 123450n],
    ['12', 1200n],
    ['-3', -300n],
  ])('%s is %s cents', (typed, cents) => expect(readTypedMoney(typed, EUR)).toBe(cents));
  test.each(['', 'much', '1.005'])('%p is none', (typed) => expect(readTypedMoney(typed, EUR)).toBeNull());
  test('samples have the decimals of the currency', () => {
    expect([moneySample(EUR), moneySample(currency('JPY')), moneySample(currency('KWD'))]).toEqual([
      '12.50',
      '12',
      '12.500',
    ]);
  });
});
