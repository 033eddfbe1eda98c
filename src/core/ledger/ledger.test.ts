import { day, draftOf, EUR, lineOf, settingOf } from 'tests/book';
import { bookFigures } from '@/core/documents/bookFigures';
import { type Content, figuresOf } from '@/core/documents/content';
import { freezeDraft } from '@/core/documents/freeze';
import { minor } from '@/core/kernel/money';
import { showMoney } from '@/core/kernel/show';
import { DEMO_CUSTOMERS } from '@/demo/setup';
import { accountFor, FIRST_CHART } from './account';
import { entryOf, isBalanced, type JournalEntry, type Side } from './entry';
import { documentSides } from './posting/document';
import { filingSides } from './posting/filing';
import { receiptSides } from './posting/receipt';

const setting = settingOf();
const posting = { outputAccount: '2200', taxPeriodId: 'p' };

function content(over: Parameters<typeof draftOf>[0] = {}): Content {
  const result = freezeDraft(draftOf(over), 'INV-2026-0001', DEMO_CUSTOMERS[0] ?? null, setting);
  if (!result.ok) throw new Error(JSON.stringify(result.refusals));
  return result.value;
}

const amounts = (sides: readonly Side[]) => sides.map((side) => [side.account, showMoney(side.amount, EUR)]);

function sidesOf(of: Content): readonly Side[] {
  const figures = figuresOf(of);
  return documentSides(of, figures, bookFigures(of, figures), FIRST_CHART, posting);
}

describe('what a document posts', () => {
  const lines = [
    lineOf({ price: '940', account: '4000' }),
    lineOf({ quantity: '1.5', price: '160', discount: '10%', account: '4100' }),
    lineOf({ quantity: '4', price: '1.50', taxCode: 'IE-Z', account: '4000' }),
  ];
  test('receivables, income by account, output tax by code', () => {
    const invoice = content({ lines });
    expect(amounts(sidesOf(invoice))).toEqual([
      ['1100', '1,427.88'],
      ['4000', '\u2212946.00'],
      ['4100', '\u2212216.00'],
      ['2200', '\u2212265.88'],
      ['2200', '0.00'],
    ]);
  });
  test('income is net when prices include tax, and everything balances', () => {
    const invoice = content({ priceMode: 'gross', lines });
    const sides = sidesOf(invoice);
    expect(amounts(sides)[0]).toEqual(['1100', '1,162.00']);
    expect(isBalanced(sides)).toBe(true);
  });
  test('a credit note posts the mirror', () => {
    const invoice = content({ lines });
    const note = sidesOf({ ...invoice, kind: 'credit-note' });
    expect(note.map((side) => -side.amount)).toEqual(sidesOf(invoice).map((side) => side.amount));
  });
  test('tax lines carry code and period, the others neither', () => {
    const invoice = content({ lines });
    const marked = sidesOf(invoice).filter((side) => side.taxPeriodId);
    expect(marked.map((side) => [side.account, side.taxCode, side.taxPeriodId])).toEqual([
      ['2200', 'IE-S', 'p'],
      ['2200', 'IE-Z', 'p'],
    ]);
  });
  test('receipts and filings move between their two accounts', () => {
    expect(
      amounts(
        receiptSides(
          [{ account: '1000', amount: minor(5000n), charge: minor(0n), home: minor(5000n) }],
          minor(0n),
          FIRST_CHART,
        ).filter((s) => s.amount !== 0n),
      ),
    ).toEqual([
      ['1000', '50.00'],
      ['1100', '\u221250.00'],
    ]);
    expect(
      amounts(filingSides(minor(-230n), minor(-230n), { output: '2200', payable: '2210' }, FIRST_CHART, 'p')),
    ).toEqual([
      ['2200', '\u22122.30'],
      ['2210', '2.30'],
    ]);
  });
});

describe('an entry', () => {
  const head: JournalEntry = {
    id: 'e',
    date: day('2026-01-15'),
    kind: 'journal',
    text: 'Capital',
    sourceId: '',
    at: '2026-01-15T10:00:00.000Z',
  };
  test('gives its lines ids, its date and its text, and leaves out sides of nothing', () => {
    const { lines } = entryOf(head, [
      { account: '1000', amount: minor(100n) },
      { account: '2200', amount: minor(0n) },
      { account: '3000', amount: minor(-100n), text: 'Owner' },
    ]);
    expect(lines).toEqual([
      {
        id: 'e:000',
        entryId: 'e',
        account: '1000',
        date: '2026-01-15',
        amount: 100n,
        text: 'Capital',
        taxPeriodId: '',
        taxCode: '',
      },
      {
        id: 'e:001',
        entryId: 'e',
        account: '3000',
        date: '2026-01-15',
        amount: -100n,
        text: 'Owner',
        taxPeriodId: '',
        taxCode: '',
      },
    ]);
  });
  test('that does not balance is never put together', () => {
    expect(() => entryOf(head, [{ account: '1000', amount: minor(1n) }])).toThrow('does not balance');
  });
});

describe('the first chart', () => {
  test('has each role once', () => {
    for (const role of ['bank', 'receivables', 'output-tax', 'tax-payable'] as const)
      expect(FIRST_CHART.filter((account) => account.role === role).map((a) => a.code)).toEqual([
        accountFor(FIRST_CHART, role),
      ]);
  });
  test('without a role says so', () => expect(() => accountFor([], 'bank')).toThrow('no account has the role bank'));
});
