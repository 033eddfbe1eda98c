import fc from 'fast-check';
import { issued, lineOf, newBook } from 'tests/book';
import type { IssuedDocument } from '@/core/documents/issued';
import { isoDate } from '@/core/kernel/date';
import { decimal } from '@/core/kernel/decimal';
import { minor, total } from '@/core/kernel/money';
import { type Debt, fill, proposalFor, wholeProposal } from './proposal';

let plain: IssuedDocument;
beforeAll(async () => {
  plain = await issued(await newBook(), { lines: [lineOf({ price: '1000.00' })] });
});

const ON = isoDate('2026-02-01');

/** 1,230.00, of which 50.00 will be kept back; a discount of 2 % until a day, where one is given. */
const debt = (over: Partial<IssuedDocument> = {}, discountUntil = ''): Debt => ({
  withheld: [],
  document: {
    ...plain,
    content: {
      ...plain.content,
      withholding: [
        {
          id: 'W5',
          name: 'W5',
          base: 'net',
          when: 'on-payment',
          certificate: true,
          percent: decimal('5'),
          since: ON,
          threshold: decimal('0'),
        },
      ],
      ...(discountUntil !== '' && { settlement: { percent: decimal('2'), until: isoDate(discountUntil) } }),
    },
    figures: { ...plain.figures, withholding: [{ id: 'W5', base: minor(100000n), amount: minor(5000n) }] },
    ...over,
  },
});

const shown = ({ money, withheld, discount }: ReturnType<typeof wholeProposal>) => [
  money,
  withheld.map(({ amount }) => amount),
  discount,
];

describe('what is proposed for a document', () => {
  test('is what is open less what will be withheld and the discount that is still offered', () => {
    // 1,230.00 − 24.60 − 50.00.
    expect(shown(wholeProposal(debt({}, '2026-02-01'), ON))).toEqual([115540n, [5000n], 2460n]);
    expect(shown(wholeProposal(debt({}, '2026-01-31'), ON))).toEqual([118000n, [5000n], 0n]);
  });
  test('takes what was withheld already off', () => {
    const before = { typeId: 'W5', amount: minor(2000n), voidOn: '' as const };
    const gone = { ...before, voidOn: isoDate('2026-01-30') };
    expect(shown(wholeProposal({ ...debt({ open: minor(73800n) }), withheld: [before, gone] }, ON))).toEqual([
      70800n,
      [3000n],
      0n,
    ]);
  });
  test('for a part of the money is withheld in proportion', () => {
    // 590.00 of 1,180.00 settles half: 25.00 is kept back with it.
    expect(shown(proposalFor(debt(), minor(59000n), ON))).toEqual([59000n, [2500n], 0n]);
    expect(shown(proposalFor(debt(), minor(118000n), ON))).toEqual([118000n, [5000n], 0n]);
  });
  test('for more than is expected keeps nothing back where nothing fits', () => {
    expect(shown(proposalFor(debt(), minor(123000n), ON))).toEqual([123000n, [], 0n]);
  });
  test('after half of it was credited expects half to be withheld', () => {
    const halved = debt({ open: minor(61500n), credited: minor(61500n) });
    expect(shown(wholeProposal(halved, ON))).toEqual([59000n, [2500n], 0n]);
  });
});

describe('filling', () => {
  const of = (number: string, dueDate: string, open: bigint): Debt => ({
    withheld: [],
    document: { ...plain, id: number, number, dueDate: isoDate(dueDate), open: minor(open) },
  });
  const debts = () => [
    of('INV-3', '2026-03-01', 500n),
    of('INV-2', '2026-02-01', 300n),
    of('INV-1', '2026-03-01', 200n),
  ];

  test.each([
    [
      'oldest',
      600n,
      [
        ['INV-2', 300n],
        ['INV-1', 200n],
        ['INV-3', 100n],
      ],
      0n,
    ],
    [
      'newest',
      600n,
      [
        ['INV-3', 500n],
        ['INV-1', 100n],
      ],
      0n,
    ],
    [
      'oldest',
      1300n,
      [
        ['INV-2', 300n],
        ['INV-1', 200n],
        ['INV-3', 500n],
      ],
      300n,
    ],
  ] as const)('%s first with %s', (order, money, parts, left) => {
    const filled = fill(debts(), minor(money), ON, order);
    expect([...filled.proposals].map(([id, { money: part }]) => [id, part])).toEqual(parts);
    expect(filled.left).toBe(left);
  });
  test('for any amounts: money and rest add up, and nothing settles more than is open', () => {
    fc.assert(
      fc.property(fc.array(fc.bigInt(0n, 200000n), { maxLength: 8 }), fc.bigInt(0n, 900000n), (amounts, sum) => {
        const owed = amounts.map((open, i) => ({
          ...debt({ id: `I-${i}`, number: `I-${i}`, open: minor(open > 123000n ? 123000n : open) }, '2026-02-20'),
        }));
        const { proposals, left } = fill(owed, minor(sum), ON);
        expect(total([...proposals.values()].map(({ money }) => money)) + left).toBe(sum);
        for (const [id, { money, withheld, discount }] of proposals) {
          const open = owed.find(({ document }) => document.id === id)?.document.open ?? 0n;
          const settles = money + discount + withheld.reduce((all, { amount }) => all + amount, 0n);
          expect(settles).toBeLessThanOrEqual(open);
          expect(money).toBeGreaterThanOrEqual(0n);
        }
      }),
    );
  });
});
